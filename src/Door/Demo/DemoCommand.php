<?php

declare(strict_types=1);

namespace Verjuicer\App\Door\Demo;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Holding\HoldUnit;
use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Catalogue\Recipe\Recipe;
use Verjuicer\App\Catalogue\Recipe\RecipeKind;
use Verjuicer\App\Catalogue\Supplier\Supplier;
use Verjuicer\App\Catalogue\Thermometer\Thermometer;
use Verjuicer\App\Catalogue\Thermometer\ThermometerKind;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\BatchPlan;
use Verjuicer\App\Ledger\Log\EventLog;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Ledger\Lot\Lot;
use Verjuicer\App\Ledger\Opening\NewBatches;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Lane\BoardLanes;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\People\Role;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Work\Entry\EntryLine;
use Verjuicer\App\Work\Entry\Journal;
use Verjuicer\App\Work\Portion\PortionRow;
use Verjuicer\App\Work\Portion\Portions;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Pit\PitSign;
use Verjuicer\Core\Record\Detail\Cook;
use Verjuicer\Core\Record\Detail\Note;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Thermal\BoilingPoint;

#[AsCommand('verjuicer:demo', 'Load the Quarry Lane Smokehouse, once: a made-up kitchen whose day is the day it is loaded')]
final class DemoCommand extends Command
{
    private const SECONDS_TO_LOG = 20;

    public function __construct(
        private readonly Connection $connection,
        private readonly EntityManagerInterface $entities,
        private readonly UserPasswordHasherInterface $hasher,
        private readonly NewBatches $batches,
        private readonly EventLog $log,
        private readonly BoardLanes $lanes,
        private readonly Now $now,
        private readonly Products $products,
        private readonly Thermometers $thermometers,
        private readonly Pits $pits,
        private readonly SiteLog $siteLog,
        private readonly Journal $journal,
        private readonly Portions $portions,
    ) {
        parent::__construct();
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        if ($this->connection->fetchOne('SELECT 1 FROM site LIMIT 1') !== false) {
            $output->writeln('There is a site already: the demo is loaded into an empty database only.');

            return self::SUCCESS;
        }
        $this->connection->transactional($this->load(...));
        $output->writeln('The Quarry Lane Smokehouse is loaded.');

        return self::SUCCESS;
    }

    private function load(): void
    {
        $now = $this->now->instant();
        $site = new Site('Quarry Lane Smokehouse', 'America/Denver', TemperatureUnit::Fahrenheit, 1610, 'us-food-code-2022');
        $this->entities->persist($site);
        /** @var array<string, Account> $people */
        $people = [];
        foreach (DemoKitchen::PEOPLE as [$login, $name, $initials, $role]) {
            $people[$login] = $account = new Account($site, $login, $name, $initials, Role::from($role));
            $account->setHashedPassword($this->hasher->hashPassword($account, DemoKitchen::PASSWORD));
            $this->entities->persist($account);
        }
        $site->hasAdvisory = true;
        $products = $this->products->addCatalogue($site);
        foreach (DemoKitchen::RECIPES as [$name, $kind, $dose, $ingredients]) {
            $this->entities->persist(new Recipe($site, $name, RecipeKind::from($kind), $dose, array_values(array_map(static fn (array $one): array => ['name' => $one[0], 'parts' => $one[1], 'cents_per_kg' => $one[2], 'allergens' => $one[3]], $ingredients))));
        }
        $this->entities->flush();
        foreach (DemoKitchen::THERMOMETERS as $label => [$kind, $serial, $measures, $holder]) {
            $thermometer = new Thermometer($site, $label, ThermometerKind::from($kind), $serial, $measures, $holder);
            $this->entities->persist($thermometer);
            $this->entities->flush();
            foreach (DemoKitchen::CHECKS[$label] as [$minutes, $method, $read]) {
                $at = $now->plus(Span::ofMinutes($minutes));
                $expected = $method === 'ice' ? Temperature::ofTenths(320, $site->unit) : BoilingPoint::atElevation($site->elevationM ?? 0, $site->unit);
                $this->thermometers->check(Uuid::v7(), $thermometer, $people['mara'], $at, $at->plus(Span::ofSeconds(self::SECONDS_TO_LOG)), $method, $expected, Temperature::fahrenheit((string) $read), 'kept', null);
            }
        }
        foreach (DemoKitchen::PITS as [$name, $kind, $capacity]) {
            $pit = new Pit($site, $name, $kind, $capacity);
            $this->entities->persist($pit);
            $this->entities->flush();
            foreach (DemoKitchen::PIT_LOG[$name] as [$minutes, $login, $sign, $degrees]) {
                $at = $now->plus(Span::ofMinutes($minutes));
                $this->pits->write(Uuid::v7(), $pit, $people[$login], $at, $at->plus(Span::ofSeconds(self::SECONDS_TO_LOG)), PitSign::from($sign), $degrees === null ? null : Temperature::fahrenheit((string) $degrees), '');
            }
        }
        foreach (DemoKitchen::HOLD_UNITS as [$name, $kind, $minutes]) {
            $this->entities->persist(new HoldUnit($site, $name, $kind, $minutes));
        }
        $lots = $this->loadLots($site, $people, $products, $now);
        foreach (DemoKitchen::batches() as [$tag, $product, $pieces, $grams, $lot, $wanted, $entries]) {
            $batch = null;
            foreach ($entries as [$minutes, $login, $entry]) {
                $event = $this->event($site, $people[$login], $now->plus(Span::ofMinutes($minutes)), $tag, $entry, $batch);
                $recordedAt = $event->at->plus(Span::ofSeconds(self::SECONDS_TO_LOG));
                if ($batch === null) {
                    $batch = $this->batches->begin(Uuid::v7(), $people[$login], $recordedAt, new BatchPlan($products[$product], $tag, $pieces, $grams, lot: $lot === null ? null : $lots[$lot]), $event);
                    if ($wanted !== null) {
                        $this->log->append($batch, $people[$login], $recordedAt, new Event(Uuid::v7()->toRfc4122(), $event->at, $event->by, EventType::Note, new Note(null), unknown: ['ready_by' => $now->plus(Span::ofMinutes($wanted))->rfc3339()]));
                    }
                } else {
                    $this->log->append($batch, $people[$login], $recordedAt, $event);
                }
            }
        }
        $this->rescue($site, $people['ike'], $now);
        $this->lanes->rebuild($now);
    }

    /** Tag 26, too thick to cool in time, goes into shallow pans an hour ago; each has been read since. */
    private function rescue(Site $site, Account $by, Instant $now): void
    {
        $batch = $this->lanes->batchByTag($site, DemoKitchen::RESCUED);
        if ($batch === null) {
            return;
        }
        $at = $now->plus(Span::ofMinutes(-88));
        $rows = array_map(static fn (int $tag): PortionRow => new PortionRow(Uuid::v7(), $tag, 1700, 'pan', 50), DemoKitchen::RESCUED_TAGS);
        $this->portions->divide(Uuid::v7(), $batch, $by, $at, $rows, 0, 0, '');
        foreach ($rows as $index => $row) {
            $portion = $this->lanes->batchByTag($site, $row->tag);
            if ($portion === null) {
                continue;
            }
            foreach ([[-80, 'cool shallow pans'], [-62, (98 - $index).' T1'], [-45, (80 - $index).' T1'], [-31, (69 - $index).' T1'], [-14, (61 - $index).' T1']] as [$minutes, $entry]) {
                $when = $now->plus(Span::ofMinutes($minutes));
                $this->log->append($portion, $by, $when->plus(Span::ofSeconds(self::SECONDS_TO_LOG)), $this->event($site, $by, $when, $row->tag, $entry, $portion));
            }
        }
    }

    private function event(Site $site, Account $by, Instant $at, int $tag, string $entry, ?Batch $batch): Event
    {
        $line = EntryLine::parse($tag.(str_starts_with($entry, '.') ? '' : ' ').$entry, $site->unit, array_keys(DemoKitchen::THERMOMETERS));
        $complete = $batch === null ? $line->entry : $this->journal->completed($batch, $line->entry);
        if ($batch === null && isset($complete->extras['pit']) && \is_string($complete->extras['pit']) && $complete->detail instanceof Cook) {
            $complete = $complete->with(...$this->pits->loaded($site, $complete->extras['pit'], $complete->detail, $at));
        }

        return $complete->event(Uuid::v7()->toRfc4122(), $at, $by->initials);
    }

    /**
     * @param array<string, Account> $people
     * @param array<string, Product> $products
     *
     * @return array<string, Lot> by number
     */
    private function loadLots(Site $site, array $people, array $products, Instant $now): array
    {
        $suppliers = [];
        foreach (DemoKitchen::SUPPLIERS as $name) {
            $this->entities->persist($suppliers[$name] = new Supplier($site, $name));
        }
        $lots = [];
        foreach (DemoKitchen::LOTS as [$minutes, $login, $supplier, $product, $number, $pieces, $grams, $cents, $degrees, $isFrozen, $thermometer, $days, $isAccepted, $reason, $moves]) {
            $at = $now->plus(Span::ofMinutes($minutes));
            $recordedAt = $at->plus(Span::ofSeconds(self::SECONDS_TO_LOG));
            $lot = new Lot(
                Uuid::v7(), $site, Uuid::v5($site->id, $supplier.$minutes), $suppliers[$supplier], $products[$product], $number, $pieces, $grams, $cents, $isFrozen,
                $degrees === null ? null : Temperature::fahrenheit((string) $degrees), $thermometer, new \DateTimeImmutable($at->plus(Span::ofHours(24 * $days))->rfc3339()), $isAccepted, $reason,
                new \DateTimeImmutable($at->rfc3339()), new \DateTimeImmutable($recordedAt->rfc3339()), $people[$login],
            );
            $this->entities->persist($lot);
            $this->entities->flush();
            foreach ($moves as [$moved, $type, $place]) {
                $movedAt = $now->plus(Span::ofMinutes($moved));
                $this->siteLog->add(Uuid::v7(), 'lot', $lot->id, $people[$login], $movedAt, $movedAt->plus(Span::ofSeconds(self::SECONDS_TO_LOG)), $type, ['place' => $place]);
            }
            $lots[$number] = $lot;
        }

        return $lots;
    }
}
