<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Projection;

use Psr\Cache\CacheItemInterface;
use Psr\Log\NullLogger;
use Symfony\Component\Cache\Adapter\ArrayAdapter;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Projection\Forecast\Forecasts;
use Verjuicer\App\Projection\Forecast\ForecastTiming;
use Verjuicer\App\Projection\Lane\LaneFacts;
use Verjuicer\App\Projection\Learning\LearnedPriors;
use Verjuicer\Core\Forecast\FallOutlook;
use Verjuicer\Tests\App\KitchenTestCase;

/** A forecast costs a tenth of a second: it is made once for each state of a record, and anew when that changes. */
final class ForecastsTest extends KitchenTestCase
{
    public function testIsMadeOnceForEachStateOfARecord(): void
    {
        $this->logIn();
        $pool = new class extends ArrayAdapter {
            public int $saved = 0;

            public function save(CacheItemInterface $item): bool
            {
                ++$this->saved;

                return parent::save($item);
            }
        };
        $its = [$this->service(Products::class), $this->service(LearnedPriors::class), new NullLogger(), $pool];
        $forecasts = new Forecasts(...$its);
        $assessments = $this->service(Assessments::class);
        $chances = [];
        foreach ([1, 2] as $time) {
            $fall = $forecasts->fall($this->batch(12), $assessments->of($this->batch(12)));
            $chances[$time] = array_map(static fn ($gate): float => $gate->chance, $fall->gates ?? []);
        }
        self::assertNotSame([], $chances[1]);
        self::assertSame($chances[1], $chances[2]);
        self::assertSame(1, $pool->saved, 'the second time it was found');
        $this->keep('12.1 90');
        $forecasts->fall($this->batch(12), $assessments->of($this->batch(12)));
        self::assertSame(2, $pool->saved, 'with one more reading it is another');
        $this->keep('12.1 88');
        $batch = $this->batch(12);
        $last = $assessments->of($batch);
        $earlier = $forecasts->while(
            ForecastTiming::Rarely,
            static fn (): ?FallOutlook => $forecasts->fall($batch, $last),
        );
        self::assertSame([], $forecasts->owed(), 'what logs by itself is told one of a moment ago');
        self::assertNotNull($earlier);
        $never = $forecasts->while(
            ForecastTiming::Never,
            static fn (): ?FallOutlook => $forecasts->fall($batch, $last),
        );
        self::assertSame([$batch->id->toRfc4122()], $forecasts->owed(), 'who enters something has it made right after');
        self::assertEquals($earlier, $never);
        // Two entries in a row: whoever was last makes it, for both.
        $other = new Forecasts(...$its);
        foreach ([$forecasts, $other] as $each) {
            $each->while(ForecastTiming::Never, static fn (): ?FallOutlook => $each->fall($batch, $last));
        }
        self::assertTrue($forecasts->owesAny());
        self::assertSame([], $forecasts->owed());
        self::assertSame([$batch->id->toRfc4122()], $other->owed());
        $told = $forecasts->while(
            ForecastTiming::UnlessItComes,
            static fn (): ?FallOutlook => $forecasts->fall($batch, $last),
        );
        self::assertEquals($earlier, $told, 'a page tells the one before while it is being made');
        self::assertTrue($forecasts->wasEarlier($batch));
        self::assertNotEquals($earlier, $forecasts->fall($batch, $last));
    }

    public function testALaneKeepsWhatItSaidOfTheSameStageUntilItIsForecastAnew(): void
    {
        $said = ['stages' => [['rest', 1, null, false]], 'outlook' => [5, 9], 'hot_until' => 7, 'last' => 'old'];
        $new = ['outlook' => null, 'hot_until' => null, 'last' => 'new'] + $said;
        $packed = static fn (?array $facts): ?string => $facts === null ? null : (string) json_encode($facts);
        $kept = static fn (?array $before, array $now): mixed => json_decode(
            LaneFacts::withForecastsOf($packed($before), (string) $packed($now)),
            true,
        );
        self::assertEquals(['last' => 'new'] + $said, $kept($said, $new));
        self::assertEquals($new, $kept(null, $new));
        $another = ['stages' => [['rest', 1, 4, false], ['cool', 4, null, false]]] + $new;
        self::assertEquals($another, $kept($said, $another));
    }
}
