<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Thermometer;

use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Catalogue\Thermometer\Thermometer;
use Verjuicer\App\Catalogue\Thermometer\ThermometerKind;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Check\AccuracyCheck;
use Verjuicer\App\Ledger\Check\AccuracyChecks;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Platform\Problem\RedisplaysForm;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Settings\SiteRules;
use Verjuicer\App\Site\Site\EventTimeParser;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Ruleset\ThermometerRules;
use Verjuicer\Core\Thermal\Atmosphere;
use Verjuicer\Core\Thermal\BoilingPoint;

/**
 * The register of thermometers: checks in ice and in boiling water, their drift, and what a failed one throws into
 * doubt.
 */
#[Route('/thermometers')]
final class ThermometerController extends FormController implements RedisplaysForm
{
    private const METHODS = ['ice', 'boil'];
    /** By how much weather moves the pressure at an elevation, at the most. */
    private const WEATHER = 0.06;

    public function __construct(
        private readonly Thermometers $thermometers,
        private readonly SiteRules $rules,
        private readonly AccuracyChecks $checks,
        private readonly Assessments $assessments,
        private readonly EventTimeParser $happened,
        private readonly EntityManagerInterface $entities,
        private readonly CurrentAccount $account,
        private readonly MeasureFormatter $figures,
        private readonly Now $now,
    ) {
    }

    #[Route('', name: 'thermometers', methods: ['GET'])]
    public function list(): Response
    {
        return $this->all($this->blank());
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('', name: 'thermometer_add', methods: ['POST'])]
    public function add(Request $request): Response
    {
        $input = $this->read($request, 'thermometer');
        $label = $input->text('label', true, 12);
        $kind = $input->choice('kind', ThermometerKind::class, true);
        if (preg_match('/^\pL[\pL\pN-]*$/u', $label) !== 1) {
            $input->refuse('label', 'thermometer.problem.label');
        }
        if (!$input->isGood() || $kind === null) {
            return $this->all($input);
        }
        $site = $this->account->get()->site;
        $added = new Thermometer(
            $site,
            $label,
            $kind,
            $input->text('serial'),
            $input->text('measures'),
            $input->text('holder'),
        );
        $this->entities->persist($added);
        try {
            $this->entities->flush();
        } catch (UniqueConstraintViolationException) {
            $input->refuse('label', 'form.problem.name_taken');

            return $this->all($input);
        }

        return $this->kept('thermometer.added', 'thermometers');
    }

    #[Route(
        '/{thermometer}',
        name: 'thermometer',
        requirements: ['thermometer' => Requirement::UUID],
        methods: ['GET'],
    )]
    public function show(string $thermometer): Response
    {
        return $this->one(
            $this->find($thermometer),
            $this->blank(['method' => 'ice', 'outcome' => 'kept', 'when' => $this->happened->now()]),
        );
    }

    #[IsGranted('ROLE_CREW')]
    #[Route(
        '/{thermometer}',
        name: 'thermometer_check',
        requirements: ['thermometer' => Requirement::UUID],
        methods: ['POST'],
    )]
    public function check(string $thermometer, Request $request): Response
    {
        $found = $this->find($thermometer);
        $input = $this->read($request, 'check');
        $id = $input->id();
        $read = $input->temperature('read', $found->site->unit, true);
        $method = $input->text('method', true);
        $outcome = $input->text('outcome', true);
        $pressure = $input->pressure('pressure');
        $at = $input->read('when', fn (string $given): Instant => $this->happened->read($given, $found->site));
        if (!\in_array($method, self::METHODS, true)) {
            $input->refuse('method', 'form.problem.choice');
        }
        if (!\in_array($outcome, AccuracyChecks::OUTCOMES, true)) {
            $input->refuse('outcome', 'form.problem.choice');
        }
        if ($method === 'boil' && $pressure !== null) {
            $this->refuseSeaLevel($input, $pressure, $found->site->elevationM);
        }
        $expected = $read === null ? null : $this->expected($found, $method, $pressure, $read->unit);
        if ($read !== null && $expected === null) {
            $input->refuse('pressure', 'thermometer.problem.pressure');
        }
        if (!$input->isGood() || $read === null || $expected === null || $at === null) {
            return $this->one($found, $input);
        }
        $by = $this->account->get();
        $boiledAt = $method === 'boil' ? $pressure : null;
        $this->checks->add($id, $found, $by, $at, $method, $expected, $read, $outcome, $boiledAt);

        return $this->kept('thermometer.kept', 'thermometer', ['thermometer' => $thermometer]);
    }

    /** A pressure as weather reports give it would let a thermometer pass that is degrees off. */
    private function refuseSeaLevel(FormInput $input, int $pressure, ?int $elevation): void
    {
        $usual = $elevation === null ? (float) $pressure : Atmosphere::pascals($elevation) / 100;
        if (abs($pressure / $usual - 1) > self::WEATHER) {
            $input->refuse('pressure', 'thermometer.problem.sea_level', [
                '{usual}' => $this->figures->pressure((int) round($usual)),
            ]);
        }
    }

    /** What it ought to read; null where neither the pressure of the day nor the site's elevation is known. */
    private function expected(
        Thermometer $thermometer,
        string $method,
        ?int $pressure,
        TemperatureUnit $unit,
    ): ?Temperature {
        $elevation = $thermometer->site->elevationM;

        return match (true) {
            $method === 'ice' => Temperature::ofTenths($unit === TemperatureUnit::Fahrenheit ? 320 : 0, $unit),
            $pressure !== null => BoilingPoint::atPressure($pressure, $unit),
            $elevation !== null => BoilingPoint::atElevation($elevation, $unit),
            default => null,
        };
    }

    public function showAgain(Request $request, Problem $problem): Response
    {
        return $this->one(
            $this->find($request->attributes->getString('thermometer')),
            $this->refused($request, $problem),
        );
    }

    private function all(FormInput $input): Response
    {
        $site = $this->account->get()->site;
        $within = $this->rules->of($site)->house()->thermometerCheck;
        $now = $this->now->instant();
        $rows = array_map(function (Thermometer $thermometer) use ($now, $within): array {
            $checks = $this->checks->of($thermometer);
            $last = $checks[\count($checks) - 1] ?? null;

            $isOverdue = $last === null || Span::between($last->at, $now)->isLongerThan($within);

            return ['thermometer' => $thermometer, 'last' => $last, 'is_overdue' => $isOverdue];
        }, $this->thermometers->of($site));

        $kinds = ThermometerKind::cases();

        return $this->page('operations/thermometer/list.html.twig', $input, [
            'site' => $site,
            'rows' => $rows,
            'kinds' => $kinds,
            'within' => $within,
        ]);
    }

    private function one(Thermometer $thermometer, FormInput $input): Response
    {
        $now = $this->now->instant();
        $site = $thermometer->site;
        $checks = $this->checks->of($thermometer);
        $unit = $checks[0]->read->unit ?? $site->unit;
        $tolerance = $this->rules->of($site)->get(ThermometerRules::class)->tolerance;
        $inUnit = array_values(
            array_filter($checks, static fn (AccuracyCheck $check): bool => $check->read->unit === $unit),
        );

        return $this->page('operations/thermometer/thermometer.html.twig', $input, [
            'site' => $site,
            'thermometer' => $thermometer,
            'checks' => array_reverse($checks),
            'picture' => DriftPicture::of($inUnit, $tolerance->tenths($unit), $now),
            'tolerance' => $tolerance->tenths($unit) / 10 .' °'.$unit->value,
            'citation' => $tolerance->citation,
            'boiling' => $this->expected($thermometer, 'boil', null, $site->unit),
            'doubts' => $this->doubts($thermometer, $checks),
            'methods' => self::METHODS,
            'outcomes' => AccuracyChecks::OUTCOMES,
        ]);
    }

    /**
     * @param list<AccuracyCheck> $checks
     *
     * @return list<array{batch: Batch, readings: int, verdict: string}> the batches of which readings are in doubt, and
     *     their verdicts as they are now
     */
    private function doubts(Thermometer $thermometer, array $checks): array
    {
        $doubts = [];
        foreach ($this->checks->batchesInDoubt($thermometer, $checks) as $batch) {
            $assessment = $this->assessments->whole($batch);
            $suspect = array_fill_keys($assessment->suspectReadings, true);
            $isOfThis = static fn (TrackReading $one): bool => isset($suspect[$one->id])
                && $one->thermometer === $thermometer->label;
            $ofThis = array_filter($assessment->timeline->readings->all(), $isOfThis);
            if ($ofThis !== []) {
                $doubts[] = [
                    'batch' => $batch,
                    'readings' => \count($ofThis),
                    'verdict' => $assessment->verdict->value,
                ];
            }
        }

        return $doubts;
    }

    private function find(string $id): Thermometer
    {
        return $this->thermometers->find($this->account->get()->site, $id) ?? throw $this->createNotFoundException();
    }
}
