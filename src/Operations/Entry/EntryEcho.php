<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\LastReadings;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Wording\EventText;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;

/** Tells an entry back in plain words: "Tag 7, Lamb shoulder · piece 2, flat · 198 °F · now · T1". */
final readonly class EntryEcho
{
    public function __construct(
        private TranslatorInterface $translator,
        private EventText $text,
        private MeasureFormatter $figures,
        private LastReadings $lastReadings,
        private Now $now,
    ) {
    }

    public function of(Destination $destination, Draft $draft): string
    {
        $batch = $destination->batch;
        $values = ['{tag}' => (string) $batch->tag, '{product}' => $batch->productName];
        $told = [$this->translator->trans('entry.echo.tag', $values)];
        if ($destination->piece !== null) {
            $parts = ['{piece}' => (string) $destination->piece, '{tag}' => (string) $destination->tag];
            $told[] = $this->translator->trans('entry.echo.parts', $parts);
        }
        $told[] = $this->text->of($draft->detail, $draft->reason, $batch->pieces, $batch->site->zone());
        $told[] = $this->when($batch, $draft->at);

        return implode(' · ', $told);
    }

    /**
     * @return array{sentence: string, batch: string, event: string, ask: string} what is said once it is kept, by what
     *     it can be taken back, and the line a reading that is missing begins with
     */
    public function receipt(RecordedEntry $kept): array
    {
        return [
            'sentence' => $this->of(new Destination($kept->batch), $kept->draft),
            'batch' => $kept->batch->id->toRfc4122(),
            'event' => $kept->draft->id->toRfc4122(),
            'ask' => $kept->draft->detail instanceof Cook
                && !$this->lastReadings->isReadAround($kept->batch, $kept->draft->at)
                    ? $kept->batch->tag.' '
                    : '',
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
