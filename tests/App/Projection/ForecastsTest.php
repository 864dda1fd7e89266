<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Projection;

use Psr\Cache\CacheItemInterface;
use Psr\Log\NullLogger;
use Symfony\Component\Cache\Adapter\ArrayAdapter;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Projection\Forecast\Forecasts;
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
        $forecasts = new Forecasts($this->service(Products::class), new NullLogger(), $pool);
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
    }
}
