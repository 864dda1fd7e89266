<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Entry;

use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Wording\EventText;
use Verjuicer\App\Platform\Wording\Figures;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;

/** Tells an entry back in plain words: "Tag 7, Lamb shoulder · piece 2, flat · 198 °F · now · T1". */
final readonly class EntryEcho
{
    public function __construct(
        private TranslatorInterface $translator,
        private EventText $text,
        private Figures $figures,
        private Now $now,
    ) {
    }

    public function of(Batch $batch, Draft $draft): string
    {
        $values = ['{tag}' => (string) $batch->tag, '{product}' => $batch->productName];

        return implode(' · ', [
            $this->translator->trans('entry.echo.tag', $values),
            $this->text->of($draft->detail, $draft->reason, $batch->pieces, $batch->site->zone()),
            $this->when($batch, $draft->at),
        ]);
    }

    /** @return array{sentence: string, batch: string, event: string} what is said once it is kept, and by what it can be taken back */
    public function receipt(Batch $batch, Draft $draft): array
    {
        return [
            'sentence' => $this->of($batch, $draft),
            'batch' => $batch->id->toRfc4122(),
            'event' => $draft->id->toRfc4122(),
        ];
    }

    private function when(Batch $batch, Instant $at): string
    {
        $now = $this->now->instant();
        $ago = Span::between($at, $now)->seconds;

        return match (true) {
            $ago < 60 => $this->translator->trans('entry.echo.now'),
            $ago < 3600 => $this->translator->trans('entry.echo.ago', ['{minutes}' => (string) intdiv($ago, 60)]),
            default => $this->figures->instant($at, $batch->site->zone(), $now),
        };
    }
}
