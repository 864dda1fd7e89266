<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Thermometer;

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
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Check\Check;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Ruleset\RuleSetLibrary;
use Verjuicer\Core\Thermal\BoilingPoint;

/** The register of thermometers: checks in ice and in boiling water, their drift, and what a failed one throws into doubt. */
#[Route('/thermometers')]
final class ThermometerController extends FormController
{
    private const OUTCOMES = ['kept', 'adjusted', 'retired'];
    private const METHODS = ['ice', 'boil'];

    public function __construct(
        private readonly Thermometers $thermometers,
        private readonly RuleSetLibrary $ruleSets,
        private readonly StoredRecords $records,
        private readonly Assessor $assessor,
        private readonly EntityManagerInterface $entities,
        private readonly CurrentAccount $account,
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
        $this->entities->persist(new Thermometer($this->account->get()->site, $label, $kind, $input->text('serial'), $input->text('measures'), $input->text('holder')));
        try {
            $this->entities->flush();
        } catch (UniqueConstraintViolationException) {
            $input->refuse('label', 'form.problem.name_taken');

            return $this->all($input);
        }

        return $this->kept('thermometer.added', 'thermometers');
    }

    #[Route('/{thermometer}', name: 'thermometer', requirements: ['thermometer' => Requirement::UUID], methods: ['GET'])]
    public function show(string $thermometer): Response
    {
        return $this->one($this->find($thermometer), $this->blank(['method' => 'ice', 'outcome' => 'kept', 'minutes_ago' => '0']));
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('/{thermometer}', name: 'thermometer_check', requirements: ['thermometer' => Requirement::UUID], methods: ['POST'])]
    public function check(string $thermometer, Request $request): Response
    {
        $found = $this->find($thermometer);
        $input = $this->read($request, 'check');
        $id = $input->id();
        $read = $input->temperature('read', $found->site->unit, true);
        $method = $input->text('method', true);
        $outcome = $input->text('outcome', true);
        $pressure = $input->whole('pressure', 500, 1080);
        $minutesAgo = $input->whole('minutes_ago', 0, 720, true);
        if (!\in_array($method, self::METHODS, true)) {
            $input->refuse('method', 'form.problem.choice');
        }
        if (!\in_array($outcome, self::OUTCOMES, true)) {
            $input->refuse('outcome', 'form.problem.choice');
        }
        $expected = $read === null ? null : $this->expected($found, $method, $pressure, $read->unit);
        if ($read !== null && $expected === null) {
            $input->refuse('pressure', 'thermometer.problem.pressure');
        }
        if (!$input->isGood() || $read === null || $expected === null || $minutesAgo === null) {
            return $this->one($found, $input);
        }
        $now = $this->now->instant();
        $at = $now->plus(Span::ofMinutes(-$minutesAgo));
        $this->thermometers->check($id, $found, $this->account->get(), $at, $now, $method, $expected, $read, $outcome, $method === 'boil' ? $pressure : null);

        return $this->kept('thermometer.kept', 'thermometer', ['thermometer' => $thermometer]);
    }

    /** What it ought to read; null where neither the pressure of the day nor the site's elevation is known. */
    private function expected(Thermometer $thermometer, string $method, ?int $pressure, TemperatureUnit $unit): ?Temperature
    {
        $elevation = $thermometer->site->elevationM;

        return match (true) {
            $method === 'ice' => Temperature::ofTenths($unit === TemperatureUnit::Fahrenheit ? 320 : 0, $unit),
            $pressure !== null => BoilingPoint::atPressure($pressure, $unit),
            $elevation !== null => BoilingPoint::atElevation($elevation, $unit),
            default => null,
        };
    }

    private function all(FormInput $input): Response
    {
        $site = $this->account->get()->site;
        $house = $this->ruleSets->get($site->ruleSet)->house;
        $now = $this->now->instant();
        $rows = array_map(function (Thermometer $thermometer) use ($now, $house): array {
            $checks = $this->thermometers->checksOf($thermometer);
            $last = $checks[\count($checks) - 1] ?? null;

            return ['thermometer' => $thermometer, 'last' => $last, 'is_overdue' => $last === null || Span::between($last->at, $now)->isLongerThan($house->thermometerCheck)];
        }, $this->thermometers->of($site));

        return $this->page('thermometer/list.html.twig', $input, ['site' => $site, 'rows' => $rows, 'kinds' => ThermometerKind::cases(), 'within' => $house->thermometerCheck]);
    }

    private function one(Thermometer $thermometer, FormInput $input): Response
    {
        $now = $this->now->instant();
        $site = $thermometer->site;
        $checks = $this->thermometers->checksOf($thermometer);
        $unit = $checks[0]->read->unit ?? $site->unit;
        $tolerance = $this->ruleSets->get($site->ruleSet)->thermometerTolerance;

        return $this->page('thermometer/thermometer.html.twig', $input, [
            'site' => $site,
            'thermometer' => $thermometer,
            'checks' => array_reverse($checks),
            'picture' => DriftPicture::of(array_values(array_filter($checks, static fn (Check $check): bool => $check->read->unit === $unit)), $tolerance->tenths($unit), $now),
            'tolerance' => $tolerance->tenths($unit) / 10 .' °'.$unit->value,
            'citation' => $tolerance->citation,
            'boiling' => $this->expected($thermometer, 'boil', null, $site->unit),
            'doubts' => $this->doubts($thermometer),
            'methods' => self::METHODS,
            'outcomes' => self::OUTCOMES,
        ]);
    }

    /** @return list<array{batch: Batch, readings: int, verdict: string}> the batches of which readings are in doubt, and their verdicts as they are now */
    private function doubts(Thermometer $thermometer): array
    {
        $doubts = [];
        foreach ($this->thermometers->batchesReadWith($thermometer) as $batch) {
            $record = $this->records->of($batch);
            $assessment = $this->assessor->assess($record, $this->ruleSets->get($record->rules), $this->now->instant());
            $suspect = array_fill_keys($assessment->suspectReadings, true);
            $ofThis = array_filter($assessment->timeline->readings, static fn ($reading): bool => isset($suspect[$reading->id]) && $reading->thermometer === $thermometer->label);
            if ($ofThis !== []) {
                $doubts[] = ['batch' => $batch, 'readings' => \count($ofThis), 'verdict' => $assessment->verdict->value];
            }
        }

        return $doubts;
    }

    private function find(string $id): Thermometer
    {
        return $this->thermometers->find($this->account->get()->site, $id) ?? throw $this->createNotFoundException();
    }
}
