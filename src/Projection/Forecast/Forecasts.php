<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Forecast;

use Psr\Cache\CacheItemPoolInterface;
use Psr\Log\LoggerInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Projection\Learning\LearnedPriors;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Forecast\Belief\LearnedParameters;
use Verjuicer\Core\Forecast\CookOutlook;
use Verjuicer\Core\Forecast\CookRescue;
use Verjuicer\Core\Forecast\FallOutlook;
use Verjuicer\Core\Forecast\Remedy;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;

/**
 * How a batch is likely to go on. A forecast that cannot be made is left out and reported: the verdicts are there all
 * the same. One is reckoned once for each state of a record and every two minutes: the lane and the page ask for the
 * same. They lie in a fixed number of places, a later one in place of an earlier.
 *
 * An entry does not wait for a forecast, which decides no verdict and takes longer than everything else. The previous
 * one stands in while the stage is the same, and the batch is marked for a new one.
 */
final class Forecasts
{
    private const SECONDS = 120;
    private const PLACES = 256;
    /** How long after an entry its forecast is surely being made. */
    private const BEING_MADE_S = 10;
    /** Largest age of a forecast while a sensor records. */
    private const GOOD_ENOUGH_S = 30;

    /** @var array<string, array{mixed, mixed}> the last of each kind: on the command line nothing else is kept */
    private array $last = [];

    /** @var array{mixed, LearnedParameters|null}|null learned parameters of the last batch */
    private ?array $learned = null;

    private ForecastTiming $wait = ForecastTiming::ForIt;

    /** @var array<string, string> by the id of a batch: who owes it here, told apart from who did before or will */
    private array $owed = [];

    /** @var array<string, int> when the last was made here, in seconds since 1970, by the batch's id */
    private array $madeAt = [];

    /** @var array<string, true> ids of batches of which an earlier one was told */
    private array $earlier = [];

    public function __construct(
        private readonly Products $products,
        private readonly LearnedPriors $priors,
        private readonly LoggerInterface $logger,
        #[Autowire(service: 'cache.forecasts')] private readonly CacheItemPoolInterface $cache,
    ) {
    }

    /**
     * Has something done that waits for forecasts, or does not.
     *
     * @template T
     *
     * @param \Closure(): T $done
     *
     * @return T
     */
    public function while(ForecastTiming $wait, \Closure $done): mixed
    {
        $before = $this->wait;
        $this->wait = $wait;
        try {
            return $done();
        } finally {
            $this->wait = $before;
        }
    }

    /** Whether a forecast of an earlier record is allowed now. */
    public function mayBeEarlier(): bool
    {
        return $this->wait !== ForecastTiming::ForIt;
    }

    /** Whether the forecast of a batch is of its earlier record while a new one is being made. */
    public function wasEarlier(Batch $batch): bool
    {
        return isset($this->earlier[$batch->id->toRfc4122()]);
    }

    /** Runs a task after the response, like a forecast. */
    public function owe(Batch $batch, Instant $now): void
    {
        $this->isOwed($batch->id->toRfc4122(), $now);
    }

    private function isOwed(string $id, Instant $now): void
    {
        $this->owed[$id] ??= bin2hex(random_bytes(8));
        $this->cache->save(
            $this->cache->getItem('owed.'.self::place($id))->set([$id, $now->epoch, $this->owed[$id]]),
        );
    }

    /** Learned values were changed by hand: all forecasts are remade. */
    public function forget(): void
    {
        $this->last = [];
        $this->learned = null;
        $this->cache->clear();
    }

    public function owesAny(): bool
    {
        return $this->owed !== [];
    }

    /**
     * @return list<string> ids of batches with an outdated forecast or none, without entries since that would remake
     *     it; they are cleared from the list
     */
    public function owed(): array
    {
        $owed = [];
        foreach ($this->owed as $id => $who) {
            $item = $this->cache->getItem('owed.'.self::place($id));
            $last = $item->isHit() ? $item->get() : null;
            if (!\is_array($last) || ($last[0] ?? null) !== $id || ($last[2] ?? null) === $who) {
                $owed[] = $id;
            }
        }
        $this->owed = [];

        return $owed;
    }

    /** Marked forecasts are not made here: the next reader waits for them. */
    public function leaveToThePage(): void
    {
        foreach (array_keys($this->owed) as $id) {
            $this->cache->deleteItem('owed.'.self::place($id));
        }
        $this->owed = [];
    }

    private static function place(string $batchId): int
    {
        return (int) hexdec(substr(hash('xxh32', $batchId), 0, 7)) % self::PLACES;
    }

    /** When it is likely to be as the kitchen likes it. */
    public function cook(Batch $batch, Assessment $assessment): ?CookOutlook
    {
        return $this->made(
            'cook',
            $batch,
            $assessment,
            $this->target($batch),
            fn (?Temperature $target): ?CookOutlook => CookOutlook::of(
                $assessment,
                $target,
                learned: $this->learned($batch, $assessment),
            ),
        );
    }

    /** Remedies for a late cook, by the outlook of `cook()`. */
    public function rescue(Batch $batch, Assessment $assessment, CookOutlook $late): ?CookRescue
    {
        return $this->made(
            'rescue',
            $batch,
            $assessment,
            $this->target($batch),
            fn (?Temperature $target): CookRescue => CookRescue::of(
                $assessment,
                $late,
                $target,
                $this->learned($batch, $assessment),
            ),
        );
    }

    private function learned(Batch $batch, Assessment $assessment): ?LearnedParameters
    {
        $state = [
            $batch->id->toRfc4122(),
            $assessment->timeline->stage()->event->id ?? '',
            intdiv($assessment->timeline->asOf->epoch, self::SECONDS),
        ];
        if (($this->learned[0] ?? null) !== $state) {
            $this->learned = [$state, $this->priors->learned($batch->site, $assessment)];
        }

        return $this->learned[1] ?? null;
    }

    /** @return \Closure(): (Temperature|null) */
    private function target(Batch $batch): \Closure
    {
        return fn (): ?Temperature => $this->products->named($batch->site, $batch->productName)?->doneness()?->from;
    }

    /** How it is likely to cool, whether it is meant to or not. */
    public function fall(Batch $batch, Assessment $assessment): ?FallOutlook
    {
        return $this->made(
            'fall',
            $batch,
            $assessment,
            static fn (): null => null,
            fn (): ?FallOutlook => FallOutlook::of($assessment, $this->learned($batch, $assessment)),
        );
    }

    /**
     * Remedies while a cooling limit may be missed and can still be met.
     *
     * @return list<Remedy>
     */
    public function remedies(Batch $batch, Assessment $assessment): array
    {
        $made = $this->made(
            'remedies',
            $batch,
            $assessment,
            static fn (): null => null,
            function () use ($batch, $assessment): array {
                $fall = $this->fall($batch, $assessment);

                return $fall?->isLateAhead() === true ? $fall->remedies($assessment) : [];
            },
        );

        return $made ?? [];
    }

    /**
     * @template T of CookOutlook|CookRescue|FallOutlook|list<Remedy>
     *
     * @param \Closure(): (Temperature|null) $target its target, where it matters
     * @param \Closure(Temperature|null): (T|null) $forecast
     *
     * @return T|null
     */
    private function made(
        string $kind,
        Batch $batch,
        Assessment $assessment,
        \Closure $target,
        \Closure $forecast,
    ): CookOutlook|CookRescue|FallOutlook|array|null {
        $id = $batch->id->toRfc4122();
        try {
            $wanted = $target();
            $state = [
                $id,
                $assessment->timeline->stage()->event->id ?? '',
                intdiv($assessment->timeline->asOf->epoch, self::SECONDS),
                $assessment->rules->id,
                \count($assessment->timeline->events) + $assessment->timeline->readings->count(),
                \count(array_unique(array_column($assessment->record->events, 'replaces'))),
                $assessment->timeline->events[\count($assessment->timeline->events) - 1]->id ?? '',
                $assessment->record->site->elevationM,
                $assessment->suspectReadings,
                array_map(self::told(...), $assessment->countdowns),
                $wanted === null ? null : $wanted->tenths.$wanted->unit->value,
            ];
            if (($this->last[$kind][0] ?? null) === $state) {
                /** @var T|null */
                return $this->last[$kind][1];
            }
            $place = self::place($id);
            $item = $this->cache->getItem("$kind.$place");
            $kept = $item->isHit() ? $item->get() : null;
            if (\is_array($kept) && ($kept[0] ?? null) === $state) {
                /** @var T|null */
                return $kept[1];
            }
            $isOfStage = \is_array($kept)
                && \is_array($kept[0] ?? null)
                && \array_slice($kept[0], 0, 2) === \array_slice($state, 0, 2);
            $madeAt = max($this->madeAt[$id] ?? 0, $isOfStage && \is_int($kept[2] ?? null) ? $kept[2] : 0);
            if ($this->isTold($id, $place, $assessment->timeline->asOf, $isOfStage, $madeAt)) {
                /** @var T|null */
                return $isOfStage ? $kept[1] ?? null : null;
            }
            $made = $forecast($wanted);
            $this->last[$kind] = [$state, $made];
            $this->madeAt[$id] = $assessment->timeline->asOf->epoch;
            $this->cache->save($item->set([$state, $made, $this->madeAt[$id]]));

            return $made;
        } catch (\Throwable $problem) {
            $this->logger->error('No forecast of batch {batch}.', ['batch' => $id, 'exception' => $problem]);

            return null;
        }
    }

    /**
     * Whether an earlier one is told, or none.
     *
     * @param bool $isOfStage whether there is an earlier one of the same stage
     * @param int $madeAt when the last was made, in seconds since 1970
     */
    private function isTold(string $id, int $place, Instant $now, bool $isOfStage, int $madeAt): bool
    {
        if ($this->wait === ForecastTiming::ForIt) {
            return false;
        }
        $item = $this->cache->getItem("owed.$place");
        if ($this->wait === ForecastTiming::Rarely && $now->epoch - $madeAt < self::GOOD_ENOUGH_S) {
            return true;
        }
        if ($this->wait !== ForecastTiming::UnlessItComes) {
            $this->isOwed($id, $now);

            return true;
        }
        $owed = $item->isHit() ? $item->get() : null;
        $isBeingMade = \is_array($owed)
            && ($owed[0] ?? null) === $id
            && \is_int($owed[1] ?? null)
            && $now->epoch - $owed[1] <= self::BEING_MADE_S;
        if ($isOfStage && $isBeingMade) {
            $this->earlier[$id] = true;
        }

        return $isOfStage && $isBeingMade;
    }

    /** @return list<string|int> a countdown as plain values, for comparing states */
    private static function told(Countdown $countdown): array
    {
        $limits = array_map(
            static fn (Temperature $one): string => $one->tenths.$one->unit->value,
            $countdown->towards?->printed() ?? [],
        );

        return [$countdown->rule, $countdown->deadline->epoch, ...$limits];
    }
}
