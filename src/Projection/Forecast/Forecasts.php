<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Forecast;

use Psr\Cache\CacheItemPoolInterface;
use Psr\Log\LoggerInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Forecast\CookOutlook;
use Verjuicer\Core\Forecast\CookRescue;
use Verjuicer\Core\Forecast\FallOutlook;
use Verjuicer\Core\Measure\Temperature;

/**
 * How a batch is likely to go on. A forecast that cannot be made is left out and reported: the verdicts are there all
 * the same. One is reckoned once for each state of a record and every two minutes: the lane and the page ask for the
 * same. They lie in a fixed number of places, a later one in place of an earlier.
 */
final class Forecasts
{
    private const SECONDS = 120;
    private const PLACES = 256;

    /** @var array<string, array{mixed, mixed}> the last of each kind: on the command line nothing else is kept */
    private array $last = [];

    public function __construct(
        private readonly Products $products,
        private readonly LoggerInterface $logger,
        #[Autowire(service: 'cache.forecasts')] private readonly CacheItemPoolInterface $cache,
    ) {
    }

    /** When it is likely to be as the kitchen likes it. */
    public function cook(Batch $batch, Assessment $assessment): ?CookOutlook
    {
        $made = $this->made(
            'cook',
            $batch,
            $assessment,
            $this->target($batch),
            static fn (?Temperature $target): ?CookOutlook => CookOutlook::of($assessment, $target),
        );

        return $made instanceof CookOutlook ? $made : null;
    }

    /** What would bring it in, where it is likely to be late. */
    public function rescue(Batch $batch, Assessment $assessment): ?CookRescue
    {
        $made = $this->made(
            'rescue',
            $batch,
            $assessment,
            $this->target($batch),
            static fn (?Temperature $target): CookRescue => CookRescue::of($assessment, $target),
        );

        return $made instanceof CookRescue ? $made : null;
    }

    /** @return \Closure(): (Temperature|null) */
    private function target(Batch $batch): \Closure
    {
        return fn (): ?Temperature => $this->products->named($batch->site, $batch->productName)?->doneness()?->from;
    }

    /** How it is likely to cool, whether it is meant to or not. */
    public function fall(Batch $batch, Assessment $assessment): ?FallOutlook
    {
        $made = $this->made(
            'fall',
            $batch,
            $assessment,
            static fn (): null => null,
            static fn (): ?FallOutlook => FallOutlook::of($assessment),
        );

        return $made instanceof FallOutlook ? $made : null;
    }

    /**
     * @param \Closure(): (Temperature|null) $target what it is to be done at, where that matters
     * @param \Closure(Temperature|null): (CookOutlook|CookRescue|FallOutlook|null) $forecast
     */
    private function made(
        string $kind,
        Batch $batch,
        Assessment $assessment,
        \Closure $target,
        \Closure $forecast,
    ): CookOutlook|CookRescue|FallOutlook|null {
        $id = $batch->id->toRfc4122();
        try {
            $wanted = $target();
            $state = [
                $id,
                intdiv($assessment->timeline->asOf->epoch, self::SECONDS),
                $assessment->rules->id,
                \count($assessment->timeline->events),
                \count($assessment->record->events),
                $assessment->timeline->events[\count($assessment->timeline->events) - 1]->id ?? '',
                $assessment->record->site->elevationM,
                $assessment->suspectReadings,
                array_map(self::told(...), $assessment->countdowns),
                $wanted === null ? null : $wanted->tenths.$wanted->unit->value,
            ];
            if (($this->last[$kind][0] ?? null) === $state) {
                /** @var CookOutlook|CookRescue|FallOutlook|null */
                return $this->last[$kind][1];
            }
            $place = hexdec(substr(hash('xxh32', $id), 0, 7)) % self::PLACES;
            $item = $this->cache->getItem("$kind.$place");
            $kept = $item->isHit() ? $item->get() : null;
            if (\is_array($kept) && ($kept[0] ?? null) === $state) {
                /** @var CookOutlook|CookRescue|FallOutlook|null */
                return $kept[1];
            }
            $made = $forecast($wanted);
            $this->last[$kind] = [$state, $made];
            $this->cache->save($item->set([$state, $made]));

            return $made;
        } catch (\Throwable $problem) {
            $this->logger->error('No forecast of batch {batch}.', ['batch' => $id, 'exception' => $problem]);

            return null;
        }
    }

    /** @return list<string|int> what a countdown says, without objects: two states are compared as they are */
    private static function told(Countdown $countdown): array
    {
        $limits = array_map(
            static fn (Temperature $one): string => $one->tenths.$one->unit->value,
            $countdown->towards?->printed() ?? [],
        );

        return [$countdown->rule, $countdown->deadline->epoch, ...$limits];
    }
}
