<?php

declare(strict_types=1);

use Verjuicer\Bench\SimulatedCook;
use Verjuicer\Bench\SimulatedFall;
use Verjuicer\Bench\SimulatedMeat;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Forecast\CookOutlook;
use Verjuicer\Core\Forecast\Crossing;
use Verjuicer\Core\Forecast\FallOutlook;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Record\Reader;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

$root = dirname(__DIR__, 2);
require $root.'/vendor/autoload.php';
foreach (['Meat', 'Cook', 'Fall'] as $part) {
    require __DIR__."/Simulated$part.php";
}

[$cooks, $falls, $seed] = [(int) $argv[1], (int) $argv[2], (int) $argv[3]];
SimulatedMeat::$isSteady = ($argv[4] ?? '') === 'steady';
$library = new RuleSetLibrary($root.'/rulesets');
$reader = new Reader($library);
$assessor = new Assessor();
$assess = static function (array $record) use ($reader, $library, $assessor): Assessment {
    $read = $reader->read(json_encode($record, \JSON_THROW_ON_ERROR));

    return $assessor->assess($read, $library->get($read->rules), $read->asOf ?? throw new LogicException());
};

/**
 * What was left, and its 5, 50 and 95 %, in hours, by situation.
 *
 * @var array<string, list<array{float, float|null, float|null, float|null}>> $rows
 */
$rows = [];
/** @var array<string, list<array{float, float|null}>> $guesses by method: what was left and what was guessed */
$guesses = ['line' => [], 'exponential' => []];
$hours = static fn (?int $at, int $now): ?float => $at === null ? null : ($at - $now) / 3600;
$spent = [];
$timed = static function (Closure $ask) use (&$spent): mixed {
    $begun = hrtime(true);
    $answer = $ask();
    $spent[] = (hrtime(true) - $begun) / 1e6;

    return $answer;
};

/** The last readings within five quarters of an hour. @return list<array{int, float}> */
$lately = static function (Assessment $assessment, int $since): array {
    $points = [];
    foreach ($assessment->timeline->readings->all() as $reading) {
        if ($reading->at >= $since) {
            $points[] = [$reading->at, $reading->level / 90];
        }
    }
    $last = $points[count($points) - 1][0] ?? 0;

    return array_values(array_filter($points, static fn (array $one): bool => $one[0] >= $last - 4500));
};

for ($n = 0; $n < $cooks; ++$n) {
    mt_srand($seed * 100_000 + $n);
    $cook = new SimulatedCook();
    if ($cook->done === null || $cook->done < 2400) {
        continue;
    }
    mt_srand($seed * 777 + $n);
    $looks = [60 * mt_rand(8, 55)];
    for ($k = 0; $k < 3; ++$k) {
        $looks[] = 60 * (int) (SimulatedCook::between(0.1, 0.97) * $cook->done / 60);
    }
    foreach (array_filter([$cook->wrapAt, $cook->setAt]) as $changed) {
        $looks[] = $changed + 60 * mt_rand(3, 40);
    }
    foreach ($looks as $k => $at) {
        if ($at < 300 || $at > $cook->done - 600) {
            continue;
        }
        $situation = $cook->situation($at);
        $assessment = $assess($cook->record($at, $n * 10 + $k));
        $target = Temperature::fahrenheit((string) (int) round($cook->target * 1.8 + 32));
        $outlook = $timed(static fn (): ?CookOutlook => CookOutlook::of($assessment, $target));
        $now = SimulatedCook::epoch($at);
        $left = ($cook->done - $at) / 3600;
        $window = $outlook?->isReached === true
            ? new Crossing($assessment->timeline->asOf, $assessment->timeline->asOf, $assessment->timeline->asOf)
            : $outlook?->window;
        $row = [
            $left,
            $hours($window?->earliest->epoch, $now),
            $hours($window?->likely?->epoch, $now),
            $hours($window?->latest?->epoch, $now),
        ];
        $rows["cook · $situation"][] = $row;
        $rows['cook · all'][] = $row;
        $points = $lately($assessment, 0);
        $last = $points[count($points) - 1] ?? null;
        $slope = $last === null || $last[0] - $points[0][0] < 900
            ? null
            : ($last[1] - $points[0][1]) / ($last[0] - $points[0][0]) * 3600;
        $guesses['line'][] = [$left, $slope === null || $slope < 0.3 || $last === null
            ? null
            : max(0.02, ($cook->target - $last[1]) / $slope)];
    }
}

$gates = [];
/** @var array<int, list<bool>> $chances by fifths: whether the gate was late */
$chances = [];
$tooLow = [0, 0];
$methods = [...SimulatedFall::RESTS, ...SimulatedFall::COOLINGS];
$kinds = ['lamb', 'roast', 'turkey', 'shoulder', 'chicken', 'beef roast'];
for ($n = 0; $n < $falls; ++$n) {
    mt_srand($seed * 100_000 + 50_000 + $n);
    do {
        $cook = new SimulatedCook($kinds[mt_rand(0, count($kinds) - 1)]);
    } while ($cook->done === null || $cook->done < 3600);
    $fall = new SimulatedFall($cook, $methods[$n % count($methods)]);
    $isRest = in_array($fall->method, SimulatedFall::RESTS, true);
    $limits = $isRest ? ['135 °F' => 57.22] : ['70 °F' => 21.11, '41 °F' => 5.0];
    $end = 60 * count($fall->middle);
    $first = $fall->under($limits['70 °F'] ?? 57.22) ?? $end;
    $last = $fall->under($limits['41 °F'] ?? 57.22) ?? $end;
    foreach ([0.02 * $last, 0.35 * $first, 0.7 * $first, 0.5 * $last, 0.8 * $last] as $k => $at) {
        $at = 60 * (int) max(3, $at / 60);
        if ($at > $end) {
            continue;
        }
        $assessment = $assess($fall->record($at, $n * 10 + $k));
        $outlook = $timed(static fn (): ?FallOutlook => FallOutlook::of($assessment));
        $now = SimulatedCook::epoch((int) $cook->done + $at);
        $one = $outlook->falls['1/core'] ?? null;
        $logged = $fall->isLogged ? 'air logged' : 'air not logged';
        foreach ($limits as $name => $celsius) {
            $true = $fall->under($celsius);
            if ($fall->middle[intdiv($at, 60) - 1] <= $celsius + 0.3 || ($true !== null && $true - $at < 300)) {
                continue;
            }
            $crossing = $one?->crossing($celsius);
            $left = $true === null ? \INF : ($true - $at) / 3600;
            $row = [
                $left,
                $hours($crossing?->earliest->epoch, $now),
                $hours($crossing?->likely?->epoch, $now),
                $hours($crossing?->latest?->epoch, $now),
            ];
            $method = strtr($fall->method, '_', ' ');
            $rows["fall · $name · ".($isRest ? $method : "$method, $logged")][] = $row;
            $rows["fall · $name · all".($isRest ? '' : ", $logged")][] = $row;
            if (!$isRest && $k === 0 && $fall->depth !== null) {
                $rows["fall · $name · just after a split, $logged"][] = $row;
            }
            if ($isRest) {
                ++$tooLow[0];
                $tooLow[1] += (int) ($row[1] === null || $left < $row[1]);
            }
            $points = $lately($assessment, SimulatedCook::epoch((int) $cook->done));
            $air = $fall->air[$at > 600 ? intdiv($at, 60) - 1 : 5];
            $final = $points[count($points) - 1] ?? null;
            $rate = $final === null || $final[0] - $points[0][0] < 600 || $final[1] <= $air + 0.5
                ? null
                : log(max(1.0, ($points[0][1] - $air) / ($final[1] - $air))) / ($final[0] - $points[0][0]) * 3600;
            $guesses['exponential'][] = [
                $left,
                $rate === null || $rate < 0.005 || $celsius <= $air
                    ? null
                    : log(($final[1] - $air) / ($celsius - $air)) / $rate,
            ];
        }
        foreach ($outlook->gates ?? [] as $gate) {
            $celsius = $gate->rule === 'cool.stage1' ? 21.11 : 5.0;
            $true = $fall->under($celsius);
            $key = "$n $gate->rule";
            $gates[$key] ??= [false, 0.0, 0];
            $passed = SimulatedCook::epoch((int) $cook->done + (int) $true);
            $gates[$key][0] = $true === null || $passed > $gate->deadline->epoch;
            $gates[$key][2] = $gate->deadline->epoch - $passed;
            if (!$assessment->timeline->asOf->isAfter($gate->deadline)) {
                $gates[$key][1] = max($gates[$key][1], $gate->chance);
                $chances[min(4, (int) ($gate->chance * 5))][] = $gates[$key][0];
            }
        }
    }
}

$part = static function (array $of, float $part): float {
    sort($of);

    return $of === [] ? \NAN : $of[(int) ($part * (count($of) - 1))];
};
ksort($rows);
printf("%-52s %5s %6s %7s %6s %6s %6s\n", '', 'cases', 'held', 'before', 'width', 'bias', 'open');
foreach ($rows as $name => $cases) {
    $held = $early = $open = 0;
    $widths = $bias = [];
    foreach ($cases as [$left, $earliest, $likely, $latest]) {
        $isAfter = $earliest !== null && $left >= $earliest;
        $held += (int) (($isAfter && ($latest === null || $left <= $latest)) || ($left === \INF && $latest === null));
        $early += (int) (!$isAfter && $left !== \INF);
        $open += (int) ($latest === null);
        if ($left !== \INF) {
            $widths[] = $latest === null || $earliest === null ? \INF : ($latest - $earliest) / $left;
            $bias[] = $likely === null ? \INF : ($likely - $left) / $left;
        }
    }
    $count = count($cases);
    printf(
        "%-52s %5d %5.0f%% %6.0f%% %6.2f %+6.2f %6d\n",
        $name,
        $count,
        100 * $held / $count,
        100 * $early / $count,
        $part($widths, 0.5),
        $part($bias, 0.5),
        $open,
    );
}
foreach ($guesses as $name => $cases) {
    $said = array_values(array_filter($cases, static fn (array $one): bool => $one[1] !== null && $one[0] !== \INF));
    $ratios = [[], []];
    foreach ($said as $n => [$left, $guess]) {
        $ratios[$n % 2][] = $left / max(0.02, (float) $guess);
    }
    [$low, $high] = [$part($ratios[0], 0.05), $part($ratios[0], 0.95)];
    $held = count(array_filter($ratios[1], static fn (float $one): bool => $one >= $low && $one <= $high));
    printf(
        "%-52s %5d %5.0f%% %7s %6.2f %6s %6d\n",
        $name === 'line' ? 'cooks by a straight line, calibrated' : 'falls by an exponential, calibrated (air known)',
        count($cases),
        100 * $held / max(1, count($ratios[1])),
        '',
        $part(array_map(static fn (float $one): float => ($high - $low) / $one, $ratios[1]), 0.5),
        '',
        count($cases) - count($said),
    );
}
$late = array_filter($gates, static fn (array $one): bool => $one[0]);
$inTime = array_filter($gates, static fn (array $one): bool => !$one[0]);
$warned = static fn (array $of): int => count(array_filter($of, static fn (array $one): bool => $one[1] >= 0.3));
printf("late gates: %d, warned of %.0f%%\n", count($late), 100 * $warned($late) / max(1, count($late)));
$spare = array_filter($inTime, static fn (array $one): bool => $one[2] >= 3600);
foreach (['gates in time' => $inTime, 'gates an hour and more in time' => $spare] as $name => $of) {
    printf("%s: %d, flagged at some moment %.0f%%\n", $name, count($of), 100 * $warned($of) / max(1, count($of)));
}
ksort($chances);
foreach ($chances as $fifth => $were) {
    printf(
        "gates stated late by %d to %d in 100: %d, were %.0f\n",
        20 * $fifth,
        20 * $fifth + 20,
        count($were),
        100 * count(array_filter($were)) / count($were),
    );
}
printf("hot limit of a rest passed before its earliest: %.0f%%\n", 100 * $tooLow[1] / max(1, $tooLow[0]));
printf("a forecast takes %.0f ms in the middle, %.0f ms at the 95th hundredth\n",
    $part($spent, 0.5), $part($spent, 0.95));
