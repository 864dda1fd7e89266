<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Catalogue\Sensor\Sensors;
use Verjuicer\App\Ledger\Pit\PitHistory;
use Verjuicer\App\Ledger\Series\ArrivedSample;
use Verjuicer\App\Ledger\Series\Assignments;
use Verjuicer\App\Ledger\Series\ChannelTarget;
use Verjuicer\App\Ledger\Series\RawSeries;
use Verjuicer\App\Operations\Alarm\EquipmentDeviation;
use Verjuicer\App\Operations\Alarm\EquipmentDeviationKind;
use Verjuicer\App\Operations\Alarm\EquipmentDeviations;
use Verjuicer\App\Platform\Now;
use Verjuicer\Core\Food\PitSign;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Tests\App\KitchenTestCase;

/** When a pit, a cold room or a hot unit asks for somebody, by what its sensor read in the hours before. */
final class EquipmentDeviationsTest extends KitchenTestCase
{
    /**
     * @return iterable<string, array{list<array{int, float}>, list<array{int, string, int}>, bool}> minutes ago and °F,
     *     joined by straight lines; minutes ago, what happened at the pit, °F; whether it is sick
     */
    public static function pits(): iterable
    {
        $set = [300, 'set', 250];
        yield 'it holds' => [[[240, 250.0], [0, 246.0]], [$set], false];
        yield 'Hot-hold it or start cooling before it drops below the limit' => [
            [[240, 250.0], [20, 250.0], [0, 190.0]],
            [$set],
            true,
        ];
        yield 'it is too cold by now, and fell for a while' => [[[240, 250.0], [6, 250.0], [0, 222.0]], [$set], true];
        yield 'it fell for too short a time' => [[[240, 250.0], [3, 250.0], [0, 190.0]], [$set], false];
        yield 'it wavers below its set point' => [
            [[240, 215.0], [90, 217.0], [60, 215.5], [30, 217.0], [0, 216.0]],
            [$set],
            false,
        ];
        yield 'it comes up' => [[[240, 90.0], [0, 200.0]], [$set], false];
        yield 'it came back' => [[[240, 250.0], [90, 250.0], [60, 190.0], [20, 249.0], [0, 250.0]], [$set], false];
        yield 'dead, and no colder by now' => [[[240, 250.0], [200, 250.0], [90, 75.0], [0, 75.0]], [$set], true];
        yield 'somebody asked for less' => [
            [[240, 250.0], [20, 250.0], [0, 205.0]],
            [$set, [25, 'set', 200]],
            false,
        ];
        yield 'asked for more a moment ago' => [
            [[240, 225.0], [0, 225.0]],
            [[300, 'set', 225], [5, 'set', 300]],
            false,
        ];
        yield 'its lid is open' => [
            [[240, 250.0], [9, 250.0], [0, 190.0]],
            [$set, [9, 'lid_opened', 0]],
            false,
        ];
        yield 'a lid long shut' => [[[240, 250.0], [60, 250.0], [0, 150.0]], [$set, [60, 'lid_opened', 0]], true];
        yield 'the fire was put out' => [[[240, 250.0], [60, 250.0], [0, 150.0]], [$set, [61, 'out', 0]], false];
    }

    /**
     * @param list<array{int, float}> $course
     * @param list<array{int, string, int}> $log
     */
    #[DataProvider('pits')]
    public function testAPitIsSickWhileItFallsAwayFromItsSetPoint(array $course, array $log, bool $isSick): void
    {
        $account = $this->logIn();
        $pit = $this->service(Pits::class)->named($account->site, 'Smoker 2')
            ?? $this->service(Pits::class)->of($account->site)[1];
        $history = $this->service(PitHistory::class);
        foreach ($log as [$ago, $sign, $set]) {
            $of = PitSign::from($sign);
            $temp = $set === 0 ? null : Temperature::fahrenheit((string) $set);
            $history->add(Uuid::v7(), $pit, $account, $this->ago($ago), $of->value, $temp);
        }
        $this->course($course, fn (string $channel): bool => $this->service(Assignments::class)->put(
            Uuid::v7(),
            $channel,
            $account,
            $this->ago(240),
            ChannelTarget::Pit,
            $pit,
        ));
        $isIt = static fn (EquipmentDeviation $one): bool => $one->name === $pit->name;
        $found = array_values(array_filter($this->sick(), $isIt));
        self::assertCount($isSick ? 1 : 0, $found);
        if ($isSick) {
            self::assertSame(EquipmentDeviationKind::PitOut, $found[0]->kind);
            self::assertSame('250 °F', $found[0]->limit);
            self::mockTime('+3 minutes');
            self::assertSame($found[0]->key, $this->sick()[0]->key, 'it is the same as long as it lasts');
        }
    }

    /**
     * @return iterable<string, array{string, list<array{int, float}>, EquipmentDeviationKind|null}> place; minutes ago
     *     and °F
     */
    public static function places(): iterable
    {
        yield 'cold' => ['walk-in', [[120, 38.0], [0, 39.5]], null];
        yield 'warm for a while' => [
            'walk-in',
            [[120, 38.0], [40, 38.0], [30, 45.0], [0, 46.0]],
            EquipmentDeviationKind::Warm,
        ];
        yield 'its door was open' => ['walk-in', [[120, 38.0], [40, 38.0], [36, 48.0], [30, 39.0], [0, 38.0]], null];
        yield 'its door is open' => ['walk-in', [[120, 38.0], [6, 38.0], [0, 50.0]], null];
        yield 'warm, then silent' => ['walk-in', [[120, 38.0], [90, 45.0], [40, 52.0]], EquipmentDeviationKind::Warm];
        yield 'hot' => ['Cabinet', [[120, 150.0], [0, 148.0]], null];
        yield 'not hot' => ['Cabinet', [[120, 150.0], [50, 134.0], [0, 128.0]], EquipmentDeviationKind::NotHot];
    }

    /** @param list<array{int, float}> $course */
    #[DataProvider('places')]
    public function testARoomOrUnitIsSickWhenItIsWrongForLongerThanADoorIsOpen(
        string $name,
        array $course,
        ?EquipmentDeviationKind $kind,
    ): void {
        $account = $this->logIn();
        if ($kind === EquipmentDeviationKind::NotHot || $name === 'Cabinet') {
            $name = $this->words(
                "SELECT name FROM hold_unit WHERE site_id = '{$account->site->id}' ORDER BY name LIMIT 1",
            );
        }
        $this->course($course, fn (string $channel): bool => $this->service(Assignments::class)->put(
            Uuid::v7(),
            $channel,
            $account,
            $this->ago(120),
            ChannelTarget::Place,
            place: $name,
        ));
        $found = array_filter($this->sick(), static fn (EquipmentDeviation $one): bool => $one->name === $name);
        self::assertSame(
            $kind === null ? [] : [$kind],
            array_map(static fn (EquipmentDeviation $one): EquipmentDeviationKind => $one->kind, array_values($found)),
        );
    }

    /** @return list<EquipmentDeviation> */
    private function sick(): array
    {
        return $this->service(EquipmentDeviations::class)->of($this->logIn()->site);
    }

    /**
     * @param list<array{int, float}> $course minutes ago and °F, a sample every 30 s between them
     * @param \Closure(string): bool $put
     */
    private function course(array $course, \Closure $put): void
    {
        $account = $this->logIn();
        $sensors = $this->service(Sensors::class);
        [$id] = $sensors->register('P7', 1, '', $account);
        $sensor = $sensors->find($account->site, $id);
        self::assertNotNull($sensor);
        $channel = $sensor->channels[0];
        $put($channel->id);
        $arrived = [];
        $last = Temperature::fahrenheit('0');
        for ($piece = 1; $piece < \count($course); ++$piece) {
            [[$from, $one], [$to, $other]] = [$course[$piece - 1], $course[$piece]];
            for ($second = 60 * $from; $second > 60 * $to - ($to === 0 ? 1 : 0); $second -= 30) {
                $share = (60 * $from - $second) / (60 * ($from - $to));
                $last = Temperature::fahrenheit(\sprintf('%.1f', $one + $share * ($other - $one)));
                $at = Instant::ofEpoch($this->now() - $second);
                $arrived[] = new ArrivedSample($channel->id, 20_000 - $second, $at, $at, $last);
            }
        }
        $this->service(RawSeries::class)->add($sensor->siteId, $arrived, Instant::ofEpoch($this->now()));
        $sensors->keepState($channel, 20_000, $arrived[\count($arrived) - 1]->at, $last, []);
    }

    private function ago(int $minutes): Instant
    {
        return Instant::ofEpoch($this->now() - 60 * $minutes);
    }

    private function now(): int
    {
        return $this->service(Now::class)->instant()->epoch;
    }
}
