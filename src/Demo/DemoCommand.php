<?php

declare(strict_types=1);

namespace Verjuicer\App\Demo;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Account\Account;
use Verjuicer\App\Account\Role;
use Verjuicer\App\Batch\NewBatches;
use Verjuicer\App\Board\BoardLanes;
use Verjuicer\App\Entry\EntryLine;
use Verjuicer\App\Product\Product;
use Verjuicer\App\Record\EventLog;
use Verjuicer\App\Record\Now;
use Verjuicer\App\Site\Site;
use Verjuicer\App\Thermometer\Thermometer;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Record\Event;

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
        $products = [];
        foreach (DemoKitchen::PRODUCTS as [$name, $animal, $form, $integrity, $grams, $spots]) {
            $this->entities->persist($products[$name] = new Product($site, $name, $animal, $form, $integrity, $grams, $spots));
        }
        $this->entities->flush();
        foreach (DemoKitchen::THERMOMETERS as $label => $checks) {
            $this->loadThermometer(new Thermometer($site, $label), $checks, $people['mara'], $now);
        }
        foreach (DemoKitchen::batches() as [$tag, $product, $pieces, $grams, $entries]) {
            $batch = null;
            foreach ($entries as [$minutes, $login, $entry]) {
                $event = $this->event($site, $people[$login], $now->plus(Span::ofMinutes($minutes)), $tag, $entry);
                $recordedAt = $event->at->plus(Span::ofSeconds(self::SECONDS_TO_LOG));
                if ($batch === null) {
                    $batch = $this->batches->begin(Uuid::v7(), $people[$login], $recordedAt, $products[$product], $tag, $pieces, $grams, false, false, false, $event);
                } else {
                    $this->log->append($batch, $people[$login], $recordedAt, $event);
                }
            }
        }
        $this->lanes->rebuild($now);
    }

    private function event(Site $site, Account $by, Instant $at, int $tag, string $entry): Event
    {
        $line = EntryLine::parse($tag.(str_starts_with($entry, '.') ? '' : ' ').$entry, $site->unit, array_keys(DemoKitchen::THERMOMETERS));

        return $line->entry->event(Uuid::v7()->toRfc4122(), $at, $by->initials);
    }

    /** @param list<array{int, string, float, float}> $checks */
    private function loadThermometer(Thermometer $thermometer, array $checks, Account $by, Instant $now): void
    {
        $this->entities->persist($thermometer);
        $this->entities->flush();
        foreach ($checks as [$minutes, $method, $expected, $read]) {
            $at = $now->plus(Span::ofMinutes($minutes));
            $this->connection->insert('thermometer_check', [
                'id' => Uuid::v7()->toRfc4122(),
                'thermometer_id' => $thermometer->id->toRfc4122(),
                'at' => $at->rfc3339(),
                'recorded_at' => $at->plus(Span::ofSeconds(self::SECONDS_TO_LOG))->rfc3339(),
                'account_id' => $by->id->toRfc4122(),
                'method' => $method,
                'expected' => json_encode(['f' => $expected], \JSON_THROW_ON_ERROR),
                'read' => json_encode(['f' => $read], \JSON_THROW_ON_ERROR),
            ]);
        }
    }
}
