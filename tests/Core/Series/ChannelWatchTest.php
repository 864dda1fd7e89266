<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Series;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Series\ChannelWatch;
use Verjuicer\Core\Series\Sample;
use Verjuicer\Tests\Core\Story;

final class ChannelWatchTest extends TestCase
{
    /**
     * @param list<array{int, string|null, 2?: string}> $said seconds, what it reads, and what the pit's channel reads
     * @param list<string> $faults "kind from-until"
     */
    #[DataProvider('stories')]
    public function testItTellsWhatIsWrong(array $said, array $faults, bool $isFood, bool $isMeat = true): void
    {
        [$found, $state] = self::watched($said, $isMeat);
        self::assertSame($faults, $found);
        self::assertSame($isFood, $state->isFood());
    }

    /** @return iterable<string, array{list<array{int, string|null, 2?: string}>, list<string>, bool, 3?: bool}> */
    public static function stories(): iterable
    {
        $rising = static fn (int $from, int $to, int $step = 60): array => array_map(
            static fn (int $at): array => [$at, (string) (100 + intdiv($at, 60) % 50).'.'.($at % 10)],
            range($from, $to, $step),
        );
        yield 'meat that warms' => [$rising(0, 1200, 7), [], true];
        yield 'nothing plugged in' => [[[0, '120.4'], [60, null], [120, null]], ['unplugged 60-'], false];
        yield 'plugged in again' => [
            [[0, '120.4'], [60, null], [120, '121.0']],
            ['unplugged 60-', 'unplugged 60-120'],
            true,
        ];
        yield 'hotter than any food' => [[[0, '250.1']], ['out_of_range 0-'], false];
        yield 'an air probe may be so hot' => [[[0, '250.1']], [], true, false];
        yield 'out of the meat' => [
            [[0, '120.4'], [10, '180.0'], [400, '200.0']],
            ['jumped 10-', 'silent 10-400'],
            false,
        ];
        yield 'a spike and back' => [
            [[0, '120.4'], [10, '180.0'], [20, '120.6']],
            ['jumped 10-', 'jumped 10-20'],
            true,
        ];
        yield 'an hour unread and another temperature' => [
            [[0, '120.4'], [3600, '180.0']],
            ['silent 0-3600'],
            true,
        ];
        yield 'the same to the tenth for half an hour' => [
            array_map(static fn (int $at): array => [$at, '150.3'], range(0, 1800, 60)),
            ['stuck 1800-'],
            false,
        ];
        yield 'whole degrees may stand for longer' => [
            array_map(static fn (int $at): array => [$at, '150'], range(0, 3600, 60)),
            [],
            true,
        ];
        yield 'and not for ever' => [
            array_map(static fn (int $at): array => [$at, '150'], range(0, 5400, 60)),
            ['stuck 5400-'],
            false,
        ];
        yield 'the plugs changed places' => [
            array_map(static fn (int $at): array => [$at, '21'.($at % 10).'.4', '39.8'], range(0, 660, 33)),
            ['reversed 627-'],
            false,
        ];
        yield 'a pit that went out' => [
            [[0, '140.1', '240'], ...array_map(
                static fn (int $at): array => [$at, '14'.($at % 7).'.4', '90'],
                range(30, 900, 33),
            )],
            [],
            true,
        ];
        yield 'silent for a while' => [[[0, '120.4'], [181, '121.0']], ['silent 0-181'], true];
    }

    public function testItGoesOnFromWhatWasWrittenDown(): void
    {
        $plausible = Story::rules()->house()->plausible;
        $state = $resumed = ChannelWatch::start();
        foreach ([[0, 1204], [10, 1800], [20, 1206], [30, null], [60, 1210], [3000, 1210]] as [$at, $tenths]) {
            $temp = $tenths === null ? null : Temperature::fahrenheit((string) ($tenths / 10));
            [$state, $faults] = $state->see(new Sample($at, $at, $temp), true, $plausible);
            $written = json_decode(json_encode($resumed->toArray(), \JSON_THROW_ON_ERROR), true);
            self::assertIsArray($written);
            [$resumed, $same] = ChannelWatch::ofArray($written)->see(new Sample($at, $at, $temp), true, $plausible);
            self::assertEquals($faults, $same);
        }
        self::assertEquals($state, $resumed);
        self::assertFalse($state->isSilentAt(3180));
        self::assertTrue($state->isSilentAt(3181));
    }

    /**
     * @param list<array{int, string|null, 2?: string}> $said
     *
     * @return array{list<string>, ChannelWatch}
     */
    private static function watched(array $said, bool $isMeat): array
    {
        $state = ChannelWatch::start();
        $found = [];
        foreach ($said as $index => $one) {
            $temp = $one[1] === null ? null : Temperature::fahrenheit($one[1]);
            $pit = isset($one[2]) ? Temperature::fahrenheit($one[2]) : null;
            $sample = new Sample($index, $one[0], $temp);
            [$state, $faults] = $state->see($sample, $isMeat, Story::rules()->house()->plausible, $pit);
            foreach ($faults as $fault) {
                $found[] = "{$fault->kind->value} {$fault->from}-{$fault->until}";
            }
        }

        return [$found, $state];
    }
}
