<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Symfony\Contracts\Translation\TranslatorInterface;
use Twig\Attribute\AsTwigFilter;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\HeldPieces;
use Verjuicer\App\Ledger\Log\LastReadings;
use Verjuicer\App\Platform\Wording\MeasureFormatter;

/**
 * How much a batch is, in words: "4 pieces · 2.3 kg each", "piece 2 · 2.3 kg", or what is in a pan, once it is no
 * pieces any more.
 */
final readonly class SizeText
{
    public function __construct(
        private HeldPieces $held,
        private LastReadings $lastReadings,
        private TranslatorInterface $translator,
        private MeasureFormatter $figures,
    ) {
    }

    #[AsTwigFilter('size_words')]
    public function of(Batch $batch): string
    {
        $isMass = $this->lastReadings->isOneMass($batch);
        if ($batch->portionGrams !== null) {
            $pan = [$batch->container ?? '', $this->figures->weight($batch->portionGrams)];

            return implode(' · ', $isMass ? [...$pan, $this->translator->trans('batch.pulled')] : $pan);
        }
        $held = $this->held->of($batch);
        $count = $held === null ? $batch->pieces : \count($held);
        $words = [
            $held === null
                ? $this->translator->trans('board.pieces', ['{count}' => $count])
                : $this->translator->trans('batch.held', ['{count}' => $count, '{list}' => implode(', ', $held)]),
        ];
        if ($isMass) {
            $words[] = $this->translator->trans('batch.pulled');
        } else {
            $each = ['{weight}' => $this->figures->weight($batch->rawGrams ?? 0), '{count}' => $count];
            $words[] = $this->translator->trans($batch->rawGrams === null ? 'batch.no_weight' : 'batch.each', $each);
        }

        return implode(' · ', $words);
    }
}
