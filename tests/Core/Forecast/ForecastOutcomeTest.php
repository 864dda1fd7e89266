<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Forecast;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Forecast\ForecastOutcome;
use Verjuicer\Core\Forecast\StatedWindow;
use Verjuicer\Tests\Core\Story;

/** A forecast is settled by two readings, or by what makes it impossible; never by one. */
final class ForecastOutcomeTest extends TestCase
{
    /** @param list<string> $lines */
    #[DataProvider('stories')]
    public function testSettles(
        string $what,
        float $fahrenheit,
        string $since,
        array $lines,
        ?int $at,
        bool $isOver,
    ): void {
        $came = ForecastOutcome::of(
            Story::of(...$lines)->about('lamb roast 2pieces')->withThermometer('T9', '500 32 40')->assess('600'),
            $what,
            $what === StatedWindow::DONE ? null : '1/core',
            ($fahrenheit - 32) / 1.8,
            Story::at($since),
        );
        self::assertSame(
            [$at === null ? null : Story::at((string) $at)->rfc3339(), $isOver],
            [$came->at?->rfc3339(), $came->isOver],
        );
    }

    /** @return iterable<string, array{string, float, string, list<string>, int|null, bool}> */
    public static function stories(): iterable
    {
        $cook = ['0 cook set=275', '100 150', '200 190'];
        yield 'done between two readings' => ['done', 200.0, '100', [...$cook, '240 210'], 220, true];
        yield 'by its slowest piece' => [
            'done', 200.0, '100',
            [...$cook, '201 180 p2', '240 210', '241 190 p2', '281 210 p2'], 261, true,
        ];
        yield 'not yet' => ['done', 200.0, '100', $cook, null, false];
        yield 'off before it was' => ['done', 200.0, '100', [...$cook, '240 rest method=towels'], null, true];
        yield 'one piece nobody read again' => [
            'done', 200.0, '100',
            [...$cook, '201 180 p2', '240 210', '250 rest method=towels'], null, true,
        ];
        $cool = ['0 cook', '100 170', '110 cool method=walk-in', '120 140', '180 120'];
        yield 'under the hot limit' => ['hot', 135.0, '110', $cool, 135, true];
        yield 'stated after it was under' => ['cool.stage1', 70.0, '190', [...$cool, '300 80', '340 60'], 320, true];
        yield 'still above' => ['cool.stage1', 70.0, '190', [...$cool, '300 80'], null, false];
        yield 'reheated' => ['cool.stage1', 70.0, '190', [...$cool, '300 80', '310 reheat for=immediate'], null, true];
        yield 'ended' => ['cool.stage1', 70.0, '190', [...$cool, '300 discard reason=late'], null, true];
    }
}
