<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Exchange;

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\EventLog;
use Verjuicer\App\Platform\Csv\Csv;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\WallTime;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\MalformedInstant;
use Verjuicer\Core\Measure\MalformedTemperature;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Record\Detail\Reading;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\EventType;

/** Readings of a data logger into one batch: all of a table or nothing of it; a reading that is there already is known. */
final readonly class LoggerImport
{
    private const MOST_LINES = 20_000;
    private const MIDDLE_FAHRENHEIT = 88.0; // between the limits: hotter is rounded down, colder up
    private const MIDDLE_CELSIUS = 31.0;
    private const NOISE = 1e-6; // of a float

    public function __construct(private Connection $connection, private EventLog $log, private Now $now)
    {
    }

    public function import(string $text, LoggerMapping $mapping, Batch $batch, Account $by, bool $isPreview): ImportReport
    {
        $report = new ImportReport();
        $events = $this->read($text, $mapping, $batch, $by, $report);
        /** @var list<string> $known */
        $known = $events === [] ? [] : $this->connection->fetchFirstColumn('SELECT id FROM event WHERE batch_id = ?', [$batch->id->toRfc4122()]);
        $known = array_fill_keys($known, true);
        $new = array_values(array_filter($events, static fn (Event $event): bool => !isset($known[$event->id])));
        $report->new = \count($new);
        $report->known = \count($events) - \count($new);
        if (!$isPreview && $report->isGood() && $new !== []) {
            $this->log->append($batch, $by, $this->now->instant(), ...$new);
        }

        return $report;
    }

    /** @return list<Event> */
    private function read(string $text, LoggerMapping $mapping, Batch $batch, Account $by, ImportReport $report): array
    {
        $events = [];
        $before = Instant::ofEpoch(0);
        $lines = Csv::read($text);
        if (\count($lines) > self::MOST_LINES) {
            $report->refuse(self::MOST_LINES, 'more than 20,000 lines: split the file.');

            return [];
        }
        foreach ($lines as $index => $fields) {
            if ($index === 0 && $mapping->hasHeader) {
                continue;
            }
            $time = $fields[$mapping->timeColumn] ?? '';
            $at = self::instant($time, $mapping, $before);
            if ($at === null) {
                $report->refuse($index + 1, \sprintf('"%s" is not a time in %s, or one that a clock change skips.', mb_substr($time, 0, 30), $mapping->zone->name));

                continue;
            }
            if ($at->isAfter($this->now->instant())) {
                $report->refuse($index + 1, \sprintf('"%s" lies ahead.', mb_substr($time, 0, 30)));

                continue;
            }
            try {
                $temp = Temperature::parse(self::tenths($fields[$mapping->temperatureColumn] ?? '', $mapping->unit), $mapping->unit);
            } catch (MalformedTemperature $problem) {
                $report->refuse($index + 1, $problem->getMessage());

                continue;
            }
            $before = $at;
            $id = Uuid::v5($batch->id, implode('/', ['logger', $mapping->piece, $mapping->spot, $at->epoch, $temp->tenths, $temp->unit->value]))->toRfc4122();
            $events[$id] = new Event($id, $at, $by->initials, EventType::Reading, new Reading($temp, $mapping->piece, $mapping->spot, $mapping->thermometer), unknown: ['logger' => true]);
        }
        if ($events === [] && $report->isGood()) {
            $report->refuse(1, 'there is no reading in it.');
        }

        return array_values($events);
    }

    /** A time with its zone as it stands, else on the wall of the zone named; of two moments the one after the line before. */
    private static function instant(string $time, LoggerMapping $mapping, Instant $before): ?Instant
    {
        try {
            return Instant::parse(str_replace(' ', 'T', $time));
        } catch (MalformedInstant) {
            return WallTime::parse($time, $mapping->zone, $before->epoch === 0 ? Instant::ofEpoch(\PHP_INT_MIN >> 1) : $before);
        }
    }

    /** Loggers write hundredths: they are rounded towards the danger zone, never across a limit to its safe side. */
    private static function tenths(string $number, TemperatureUnit $unit): string
    {
        $plain = str_replace(['−', ','], ['-', '.'], trim($number));
        if (preg_match('/^[-+]?\d{1,4}\.\d{2,}$/', $plain) !== 1) {
            return $number;
        }
        $tenths = 10 * (float) $plain;
        $isHot = (float) $plain > ($unit === TemperatureUnit::Fahrenheit ? self::MIDDLE_FAHRENHEIT : self::MIDDLE_CELSIUS);

        return number_format(($isHot ? floor($tenths + self::NOISE) : ceil($tenths - self::NOISE)) / 10, 1, '.', '');
    }
}
