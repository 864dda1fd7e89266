<?php

declare(strict_types=1);

use Verjuicer\Bench\SimulatedCook;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Forecast\Belief\LearnedParameters;
use Verjuicer\Core\Forecast\CookOutlook;
use Verjuicer\Core\Forecast\Learning\BatchReplay;
use Verjuicer\Core\Forecast\Learning\LearningSubject;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Record\Reader;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

$root = dirname(__DIR__, 2);
require $root.'/vendor/autoload.php';
foreach (['Meat', 'Cook'] as $part) {
    require __DIR__."/Simulated$part.php";
}

[$kitchens, $heard, $seed] = [(int) $argv[1], (int) $argv[2], (int) $argv[3]];
$library = new RuleSetLibrary($root.'/rulesets');
$reader = new Reader($library);
$assessor = new Assessor();
$assess = static function (array $record) use ($reader, $library, $assessor) {
    $read = $reader->read(json_encode($record, \JSON_THROW_ON_ERROR));

    return $assessor->assess($read, $library->get($read->rules), $read->asOf ?? throw new LogicException());
};
$onPit = static function (array $record): array {
    foreach ($record['batch']['events'] as $n => $event) {
        if ($event['type'] === 'cook') {
            $record['batch']['events'][$n]['pit'] = 'the pit';
        }
    }

    return $record;
};
$lessons = new BatchReplay($assessor);
$kinds = ['shoulder', 'lamb', 'roast', 'turkey', 'chicken'];
/** @var array<string, array<string, list<array{float, float|null, float|null, float|null}>>> $rows */
$rows = [];
for ($n = 0; $n < $kitchens; ++$n) {
    mt_srand($seed * 10_000 + $n);
    $pit = [SimulatedCook::between(8, 21), 4.5 * SimulatedCook::normal()];
    $kind = $kinds[$n % count($kinds)];
    $shown = ['product' => [], 'pit' => []];
    for ($k = 0; $k < $heard; ++$k) {
        mt_srand($seed * 100_000 + 100 * $n + $k);
        $cook = new SimulatedCook($kind, $pit);
        if ($cook->done === null || $cook->done < 2400) {
            continue;
        }
        $record = $onPit($cook->record($cook->done - 120, $k));
        $off = ['id' => 'off', 'at' => SimulatedCook::time($cook->done), 'by' => 'QL', 'type' => 'rest'];
        $record['batch']['events'][] = $off;
        $record['as_of'] = SimulatedCook::time($cook->done + 60);
        foreach ($lessons->of($assess($record)) as $lesson) {
            $shown[$lesson->of->value][] = $lesson->shown;
        }
    }
    $learned = (LearnedParameters::of($shown[LearningSubject::Product->value]) ?? new LearnedParameters())
        ->with(LearnedParameters::of($shown[LearningSubject::Pit->value]));
    for ($k = 0; $k < 3; ++$k) {
        mt_srand($seed * 100_000 + 100 * $n + 50 + $k);
        $cook = new SimulatedCook($kind, $pit);
        if ($cook->done === null || $cook->done < 4800) {
            continue;
        }
        mt_srand($seed * 777 + 10 * $n + $k);
        foreach (['nothing read' => 300, 'first hour' => 60 * mt_rand(25, 55),
            'later' => 60 * (int) (SimulatedCook::between(0.3, 0.9) * $cook->done / 60)] as $when => $at) {
            $assessment = $assess($onPit($cook->record($at, $k)));
            $target = Temperature::fahrenheit((string) (int) round($cook->target * 1.8 + 32));
            foreach (['usual' => null, 'own' => $learned] as $which => $what) {
                $window = CookOutlook::of($assessment, $target, [], $what)?->window;
                $now = SimulatedCook::epoch($at);
                $hours = static fn ($moment): ?float => $moment === null ? null : ($moment->epoch - $now) / 3600;
                $rows[$when][$which][] = [
                    ($cook->done - $at) / 3600,
                    $hours($window?->earliest),
                    $hours($window?->likely),
                    $hours($window?->latest),
                ];
            }
        }
    }
}
$middle = static function (array $of): float {
    sort($of);

    return $of[intdiv(count($of), 2)] ?? \NAN;
};
printf("%-28s %6s %6s %6s %6s %6s\n", '', 'cases', 'held', 'width', 'bias', 'off by');
foreach ($rows as $when => $both) {
    foreach ($both as $which => $cases) {
        $held = count(array_filter($cases, static fn (array $one): bool => $one[1] !== null
            && $one[0] >= $one[1] && ($one[3] === null || $one[0] <= $one[3])));
        $widths = $bias = $off = [];
        foreach ($cases as [$left, $earliest, $likely, $latest]) {
            $widths[] = $earliest === null || $latest === null ? \INF : ($latest - $earliest) / $left;
            $bias[] = $likely === null ? \INF : ($likely - $left) / $left;
            $off[] = $likely === null ? \INF : abs($likely - $left) / $left;
        }
        printf("%-28s %6d %5.0f%% %6.2f %+6.2f %6.2f\n", "$when, $which", count($cases),
            100 * $held / max(1, count($cases)), $middle($widths), $middle($bias), $middle($off));
    }
}
