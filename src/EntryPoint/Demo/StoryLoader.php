<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Demo;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\Clock;
use Symfony\Component\Clock\MockClock;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Holding\HoldUnit;
use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Catalogue\Recipe\Recipe;
use Verjuicer\App\Catalogue\Recipe\RecipeKind;
use Verjuicer\App\Catalogue\Supplier\Supplier;
use Verjuicer\App\Catalogue\Thermometer\Thermometer;
use Verjuicer\App\Catalogue\Thermometer\ThermometerKind;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Batch\BatchPlan;
use Verjuicer\App\Ledger\Chain\SiteChain;
use Verjuicer\App\Ledger\Chain\SiteDays;
use Verjuicer\App\Ledger\Check\AccuracyChecks;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Ledger\Lot\Lot;
use Verjuicer\App\Ledger\Opening\NewBatches;
use Verjuicer\App\Ledger\Pit\PitHistory;
use Verjuicer\App\Operations\Entry\Draft;
use Verjuicer\App\Operations\Entry\EntryLine;
use Verjuicer\App\Operations\Entry\RecordEntry;
use Verjuicer\App\Operations\Portion\PortionRow;
use Verjuicer\App\Operations\Portion\Portions;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Projections;
use Verjuicer\App\Reporting\Sop\GuidedText;
use Verjuicer\App\Reporting\Sop\ProcedureLog;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\People\Person;
use Verjuicer\App\Site\People\Role;
use Verjuicer\App\Site\People\SiteUnitPreferences;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Food\PitSign;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Thermal\BoilingPoint;

/** Loads a made-up kitchen the way a real one comes about: entry by entry, each with the clock at its moment. */
final class StoryLoader
{
    private const SECONDS_TO_LOG = 20;
    /** A reading written down later than that has a reason. */
    private const LATE_MINUTES = 59;

    private ?Instant $loadedAt = null;

    /** @var array<int, list<\Closure(): mixed>> by minutes from the moment of loading */
    private array $steps = [];

    /** @var array<string, Lot> by number */
    private array $lots = [];

    public function __construct(
        private readonly SiteUnitPreferences $habits,
        private readonly Connection $connection,
        private readonly EntityManagerInterface $entities,
        private readonly UserPasswordHasherInterface $hasher,
        private readonly Ledger $ledger,
        private readonly SiteChain $chain,
        private readonly SiteDays $days,
        private readonly NewBatches $newBatches,
        private readonly Batches $batches,
        private readonly Projections $projections,
        private readonly Products $products,
        private readonly AccuracyChecks $checks,
        private readonly PitHistory $pits,
        private readonly SiteLog $siteLog,
        private readonly EntryLine $line,
        private readonly RecordEntry $entry,
        private readonly Portions $portions,
        private readonly ProcedureLog $written,
        private readonly GuidedText $texts,
        private readonly Now $now,
    ) {
    }

    public function load(Story $story): Site
    {
        $clock = Clock::get();
        $this->loadedAt = $this->now->instant();
        try {
            // It is set up before anything happens in it.
            $this->goTo($this->moment(min([0, ...array_column($story->papers, 0)])));
            $site = $this->connection->transactional(fn (): Site => $this->loaded($story));
        } finally {
            Clock::set($clock);
        }
        $this->projections->rebuild();

        return $site;
    }

    private function loaded(Story $story): Site
    {
        $site = new Site($story->site, $story->timezone, $story->unit, $story->elevationM, $story->ruleSet);
        $site->hasAdvisory = true;
        $site->isPractice = true;
        if ($story->units !== null) {
            $site->weightUnit = $story->units->weight();
            $site->lengthUnit = $story->units->length();
            $site->clock = $story->units->clock();
        }
        $this->habits->workFor($site);
        $this->entities->persist($site);
        $people = $this->loadPeople($story, $site);
        $products = $this->products->addCatalogue($site);
        foreach ($story->recipes as [$name, $kind, $dose, $ingredients]) {
            $parts = array_map(
                static fn (array $one): array => [
                    'name' => $one[0],
                    'parts' => $one[1],
                    'cents_per_kg' => $one[2],
                    'allergens' => $one[3],
                ],
                $ingredients,
            );
            $this->entities->persist(new Recipe($site, $name, RecipeKind::from($kind), $dose, $parts));
        }
        foreach ($story->holdUnits as [$name, $kind, $minutes]) {
            $this->entities->persist(new HoldUnit($site, $name, $kind, $minutes));
        }
        $this->entities->flush();
        $this->ledger->write($site, function () use ($story, $site, $people, $products): void {
            $this->steps = [];
            $this->loadPapers($story, $site, $people);
            $this->loadThermometers($story, $site, $people);
            $this->loadPits($story, $site, $people);
            $this->loadLots($story, $site, $people, $products);
            foreach ($story->batches as [$tag, $product, $pieces, $grams, $lot, $wanted, $entries]) {
                $plan = new BatchPlan($products[$product], $tag, $pieces, $grams);
                $this->loadBatch($plan, $lot, $wanted, $entries, $people);
            }
            foreach ($story->divisions as [$tag, $minutes, $login, $portions, $entries]) {
                $this->step(
                    $minutes,
                    fn () => $this->divide($this->tagged($site, $tag), $people[$login], $minutes, $portions),
                );
                $at = $minutes;
                foreach ($entries as [$portion, $later, $by, $entry]) {
                    $at = max($at, $later);
                    $this->step(
                        $at,
                        fn () => $this->keep($this->tagged($site, $portion), $people[$by], $later, $entry, $at),
                    );
                }
            }
            $this->takeSteps($site);
        });

        return $site;
    }

    /** @param \Closure(): mixed $take the action at that time */
    private function step(int $minutes, \Closure $take): void
    {
        $this->steps[$minutes][] = $take;
    }

    /** As a day goes by: in the order of time, each day of the chain closed when it is over. */
    private function takeSteps(Site $site): void
    {
        ksort($this->steps);
        foreach ($this->steps as $minutes => $steps) {
            $this->writtenDown($minutes);
            $head = $this->chain->lock($site, $this->now->instant());
            $this->days->close($site, $this->now->instant(), $head->opened);
            foreach ($steps as $take) {
                $take();
            }
        }
    }

    /** @return array<string, Account> by login */
    private function loadPeople(Story $story, Site $site): array
    {
        $people = [];
        foreach ($story->people as [$login, $name, $initials, $role]) {
            $people[$login] = $account = new Account($site, new Person($login), $name, $initials, Role::from($role));
            $account->person->setHashedPassword($this->hasher->hashPassword($account, $story->password));
            $this->entities->persist($account);
        }

        return $people;
    }

    /** @param array<string, Account> $people */
    private function loadPapers(Story $story, Site $site, array $people): void
    {
        foreach ($story->papers as [$minutes, $login, $kind]) {
            $this->step($minutes, function () use ($site, $people, $minutes, $login, $kind): void {
                $at = $this->writtenDown($minutes);
                $this->written->add(Uuid::v7(), $people[$login], $kind, [
                    'number' => GuidedText::number($kind),
                    'body' => $this->texts->of($site, $kind),
                    'from' => $at,
                    'withdrawn' => false,
                    'approved_by' => '',
                    'approved_on' => null,
                    'approval_number' => '',
                    'reason' => 'Put in writing',
                ]);
            });
        }
    }

    /** @param array<string, Account> $people */
    private function loadThermometers(Story $story, Site $site, array $people): void
    {
        $boiling = BoilingPoint::atElevation($site->elevationM ?? 0, $site->unit);
        foreach ($story->thermometers as $label => [$kind, $serial, $measures, $holder]) {
            $thermometer = new Thermometer($site, $label, ThermometerKind::from($kind), $serial, $measures, $holder);
            $this->entities->persist($thermometer);
            $this->entities->flush();
            foreach ($story->checks[$label] ?? [] as [$minutes, $method, $read]) {
                $expected = $method === 'ice' ? Temperature::ofTenths(320, $site->unit) : $boiling;
                $this->step($minutes, fn () => $this->checks->add(
                    Uuid::v7(),
                    $thermometer,
                    $people['mara'],
                    $this->writtenDown($minutes),
                    $method,
                    $expected,
                    Temperature::parse((string) $read, $site->unit),
                ));
            }
        }
    }

    /** @param array<string, Account> $people */
    private function loadPits(Story $story, Site $site, array $people): void
    {
        foreach ($story->pits as [$name, $kind, $capacity]) {
            $pit = new Pit($site, $name, $kind, $capacity);
            $this->entities->persist($pit);
            $this->entities->flush();
            foreach ($story->pitLog[$name] ?? [] as [$minutes, $login, $sign, $degrees]) {
                $temp = $degrees === null ? null : Temperature::parse((string) $degrees, $site->unit);
                $this->step($minutes, fn () => $this->pits->add(
                    Uuid::v7(),
                    $pit,
                    $people[$login],
                    $this->writtenDown($minutes),
                    PitSign::from($sign)->value,
                    $temp,
                ));
            }
        }
    }

    /**
     * @param list<array{int, string, string}> $entries
     * @param array<string, Account> $people
     */
    private function loadBatch(
        BatchPlan $plan,
        ?string $lot,
        ?int $wanted,
        array $entries,
        array $people,
    ): void {
        [$begun, $login] = $entries[0];
        $batch = null;
        $this->step($begun, function () use (&$batch, $plan, $lot, $wanted, $begun, $login, $people): void {
            $of = $lot === null ? null : $this->lots[$lot];
            $at = $this->writtenDown($begun);
            $batch = $this->newBatches->begin(Uuid::v7(), $people[$login], $plan, $of, $at);
            if ($wanted !== null) {
                $note = new Note(readyBy: $this->moment($wanted));
                $this->entry->keep($batch, $people[$login], true, new Draft(Uuid::v7(), $note, $at));
            }
        });
        $at = $begun;
        foreach ($entries as [$minutes, $login, $entry]) {
            $at = max($at, $minutes);
            $this->step($at, function () use (&$batch, $people, $login, $minutes, $entry, $at): void {
                \assert($batch instanceof Batch, 'a batch is begun by its first entry');
                $this->keep($batch, $people[$login], $minutes, $entry, $at);
            });
        }
    }

    /** @param list<array{int, int, string, int|null}> $portions tag, grams, container, mm deep */
    private function divide(Batch $batch, Account $by, int $minutes, array $portions): void
    {
        $at = $this->writtenDown($minutes);
        $rows = array_map(static fn (array $one): PortionRow => new PortionRow(Uuid::v7(), ...$one), $portions);
        $this->portions->divide(Uuid::v7(), $batch, $by, $at, $rows, 0, 0, '');
    }

    private function tagged(Site $site, int $tag): Batch
    {
        return $this->batches->tagged($site, $tag)
            ?? throw new \LogicException(\sprintf('The story has no open batch %d.', $tag));
    }

    /**
     * @param string $entry as in the log line, without the tag
     * @param int $written minutes at which it is written down, if later than it happened
     */
    private function keep(Batch $batch, Account $by, int $minutes, string $entry, int $written): void
    {
        $this->goTo($this->moment($minutes));
        $line = $batch->tag.(str_starts_with($entry, '.') ? '' : ' ').$entry;
        $draft = $this->line->parse($line, $batch->site, Uuid::v7())->draft;
        $this->writtenDown(max($minutes, $written));
        $isLate = $written - $minutes > self::LATE_MINUTES;
        $this->entry->keep($batch, $by, true, $isLate ? $draft->because('The card lay at the pit') : $draft);
    }

    /**
     * @param array<string, Account> $people
     * @param array<string, Product> $products
     */
    private function loadLots(Story $story, Site $site, array $people, array $products): void
    {
        $suppliers = [];
        foreach (array_unique(array_column($story->lots, 2)) as $name) {
            $this->entities->persist($suppliers[$name] = new Supplier($site, $name));
        }
        $this->lots = [];
        foreach ($story->lots as $row) {
            [$minutes, $login, $supplier, $product, $number, $pieces, $grams, $cents] = $row;
            [, , , , , , , , $degrees, $isFrozen, $thermometer, $days, $isAccepted, $reason, $moves] = $row;
            $this->step($minutes, function () use (
                $site, $people, $products, $suppliers, $minutes, $login, $supplier, $product, $number, $pieces, $grams,
                $cents, $degrees, $isFrozen, $thermometer, $days, $isAccepted, $reason,
            ): void {
                $at = $this->writtenDown($minutes);
                $this->lots[$number] = $lot = new Lot(
                    Uuid::v7(),
                    $site,
                    Uuid::v5($site->id, $supplier.$minutes),
                    $suppliers[$supplier],
                    $products[$product],
                    $number,
                    $pieces,
                    $grams,
                    $cents,
                    $isFrozen,
                    $degrees === null ? null : Temperature::parse((string) $degrees, $site->unit),
                    $thermometer,
                    new \DateTimeImmutable($at->plus(Span::ofHours(24 * $days))->rfc3339()),
                    $isAccepted,
                    $reason,
                    new \DateTimeImmutable($at->rfc3339()),
                    new \DateTimeImmutable($this->now->instant()->rfc3339()),
                    $people[$login],
                );
                $this->entities->persist($lot);
                $this->entities->flush();
            });
            foreach ($moves as [$moved, $type, $place]) {
                $this->step(max($minutes, $moved), fn () => $this->siteLog->add(
                    Uuid::v7(),
                    'lot',
                    $this->lots[$number]->id,
                    $people[$login],
                    $this->writtenDown($moved),
                    $type,
                    ['place' => $place],
                ));
            }
        }
    }

    private function moment(int $minutes): Instant
    {
        \assert($this->loadedAt !== null, 'a story is being loaded');

        return $this->loadedAt->plus(Span::ofMinutes($minutes));
    }

    /** Sets the clock to a little later, as when it was written down. @return Instant when it happened */
    private function writtenDown(int $minutes): Instant
    {
        $this->goTo($this->moment($minutes)->plus(Span::ofSeconds(self::SECONDS_TO_LOG)));

        return $this->moment($minutes);
    }

    private function goTo(Instant $instant): void
    {
        Clock::set(new MockClock($instant->rfc3339()));
    }
}
