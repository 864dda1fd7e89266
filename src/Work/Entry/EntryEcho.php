<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Entry;

use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Platform\Wording\EventText;

/** Tells an entry back in plain words: "Tag 7, Lamb shoulder · piece 2, flat · 198 °F · now · T1". */
final readonly class EntryEcho
{
    public function __construct(private TranslatorInterface $translator, private EventText $text)
    {
    }

    public function of(Batch $batch, Entry $entry): string
    {
        return implode(' · ', [
            $this->translator->trans('entry.echo.tag', ['{tag}' => (string) $batch->tag, '{product}' => $batch->productName]),
            $this->text->of($entry->type, $entry->detail, $entry->reason, $batch->pieces, $entry->extras, $batch->site->zone()),
            $entry->minutesAgo === 0 ? $this->translator->trans('entry.echo.now') : $this->translator->trans('entry.echo.ago', ['{minutes}' => (string) $entry->minutesAgo]),
        ]);
    }
}
