<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Plan;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Plan\PrepLeadTimes;
use Verjuicer\Core\Plan\PurchaseNeed;
use Verjuicer\Core\Plan\Range;
use Verjuicer\Core\Plan\YieldShares;

final class PurchaseNeedTest extends TestCase
{
    #[DataProvider('needs')]
    public function testFromPlatesToRawWeight(
        int $plates,
        int $grams,
        int $ofOne,
        int $least,
        int $most,
        int $pieces,
    ): void {
        $shares = new YieldShares(new Range(0.8, 1.0), new Range(0.5, 0.5));
        $need = PurchaseNeed::of($plates, $grams, $shares, $ofOne);
        self::assertSame(
            [$plates * $grams, $least, $most, $pieces],
            [$need->served, $need->least, $need->most, $need->pieces],
        );
    }

    /** @return iterable<string, array{int, int, int, int, int, int}> */
    public static function needs(): iterable
    {
        yield 'whole pieces, rounded up' => [40, 150, 6400, 12_000, 15_000, 3];
        yield 'exactly' => [40, 100, 5000, 8000, 10_000, 2];
        yield 'one plate is a piece at the least' => [1, 100, 5000, 200, 250, 1];
        yield 'as many as a batch holds' => [5000, 500, 60, 5_000_000, 6_250_000, 500];
    }

    /** Of what was bought: a whole brisket comes down to about half, a loin and a sausage lose less. */
    #[DataProvider('usual')]
    public function testWhatIsUsuallyLeft(string $name, Form $form, int $target, float $least, float $most): void
    {
        $served = YieldShares::usual($name, $form, Temperature::fahrenheit((string) $target))->served();
        self::assertGreaterThanOrEqual($least, $served->least);
        self::assertLessThanOrEqual($most, $served->most);
    }

    /** @return iterable<string, array{string, Form, int, float, float}> */
    public static function usual(): iterable
    {
        yield 'brisket' => ['Beef brisket', Form::Roast, 203, 0.4, 0.65];
        yield 'loin' => ['Pork loin', Form::Roast, 145, 0.6, 0.85];
        yield 'ribs' => ['Pork ribs', Form::Cut, 200, 0.55, 0.8];
        yield 'sausage' => ['House sausage', Form::Comminuted, 160, 0.75, 0.95];
        yield 'a bird' => ['Duck', Form::WholeBird, 170, 0.5, 0.75];
    }

    public function testWhatAFewBatchesTellIsTheirMiddle(): void
    {
        $range = Range::found([0.5, 0.52, 0.54, 0.56, 0.9]);
        self::assertGreaterThan(0.5, $range->least);
        self::assertLessThan(0.8, $range->most);
        self::assertSame(0.5, Range::found([0.5])->likely());
    }

    public function testThawingCountsDays(): void
    {
        self::assertSame(86_400, PrepLeadTimes::thawing(300));
        self::assertSame(86_400, PrepLeadTimes::thawing(2200));
        self::assertSame(2 * 86_400, PrepLeadTimes::thawing(2201));
        self::assertSame(0, (new PrepLeadTimes())->thawed());
        self::assertSame(
            86_400 + 7200,
            (new PrepLeadTimes(86_400, 3600, 7200))->thawed(),
            'before the first of the rest',
        );
    }
}
