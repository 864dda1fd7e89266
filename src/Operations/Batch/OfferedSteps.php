<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Batch\HeldPieces;
use Verjuicer\App\Ledger\Log\LastReadings;
use Verjuicer\App\Operations\Entry\FieldLists;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Kind;

/** What can be done next with a batch. */
final readonly class OfferedSteps
{
    public function __construct(
        private Batches $batches,
        private HeldPieces $held,
        private LastReadings $lastReadings,
        private FieldLists $lists,
    ) {
    }

    /**
     * @param Lane|null $lane null where it cannot be read
     * @param bool $isAll whether more than the likely step is shown
     * @param FormInput|null $sent what could not be kept
     */
    public function of(Batch $batch, ?Lane $lane, bool $isAll, ?FormInput $sent = null): Steps
    {
        $stage = $lane?->stage() ?? '';
        $offers = NextSteps::after($stage);
        $likely = self::likely($offers, $lane);
        $shown = $isAll ? $offers : array_filter([$likely]);
        $kinds = array_map(
            static fn (StepOffer $offer): ?Kind => EventKinds::named($offer->kind),
            array_values($shown),
        );

        return new Steps(
            $batch->id->toRfc4122(),
            $stage,
            $lane === null ? $this->batches->isOpen($batch) : !$lane->hasEnded(),
            $lane === null ? $this->held->numbers($batch) : $lane->held(),
            $lane === null ? $this->lastReadings->isOneMass($batch) : $lane->isMass,
            $offers,
            $likely,
            array_values(
                array_filter(
                    NextSteps::taps($stage),
                    static fn (string $tap): bool => $lane?->hasLeftover === true || !str_starts_with($tap, 'action/'),
                ),
            ),
            $this->lists->of($batch->site, $batch->ruleSet, array_values(array_filter($kinds))),
            $sent?->typed,
            $sent->problems ?? [],
        );
    }

    /** @param list<StepOffer> $offers */
    private static function likely(array $offers, ?Lane $lane): ?StepOffer
    {
        $first = $offers[0] ?? null;
        if ($lane === null) {
            return $first;
        }
        // The page advises to keep it on the heat: the biggest button does not say the opposite.
        if ($lane->isShortOfCode) {
            return null;
        }
        $last = $lane->last?->temp;
        if ($first?->kind === 'cold_hold' && $lane->stage() === 'cool' && $last?->isAbove($lane->cold) === true) {
            return null;
        }

        // What asks for an action is not simply carried on with: it stands on the page, and comes first.
        return $lane->actions() === [] ? $first : null;
    }
}
