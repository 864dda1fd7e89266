<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Operations\Entry\Draft;
use Verjuicer\App\Operations\Entry\RecordEntry;
use Verjuicer\App\Platform\Csv\Csv;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\WallTime;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\MalformedInstant;
use Verjuicer\Core\Measure\MalformedTemperature;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;

/**
 * Readings of a data logger into one batch; a reading that is there already is known. All of a table is looked through
 * before anything of it is taken.
 */
final readonly class LoggerImport
{
    private const MOST_LINES = 20_000;
    private const AT_ONCE = 500;
    private const MIDDLE_FAHRENHEIT = 88.0; // between the limits: hotter is rounded down, colder up
    private const MIDDLE_CELSIUS = 31.0;
    private const NOISE = 1e-6; // of a float

    public function __construct(private Connection $connection, private RecordEntry $entry, private Now $now)
    {
    }

    public function import(
        string $text,
        LoggerMapping $mapping,
        Batch $batch,
        Account $by,
        bool $isPreview,
        ImportProgress $taking = new ImportProgress(),
    ): ImportReport {
        $report = new ImportReport();
        $drafts = $this->read($text, $mapping, $batch, $report);
        /** @var list<string> $known */
        $known =
            $drafts === []
                ? []
                : $this->connection->fetchFirstColumn('SELECT id FROM event WHERE batch_id = ?', [
                    $batch->id->toRfc4122(),
                ]);
        $known = array_fill_keys($known, true);
        $new = array_values(
            array_filter($drafts, static fn (Draft $draft): bool => !isset($known[$draft->id->toRfc4122()])),
        );
        $report->new = \count($new);
        $report->known = \count($drafts) - \count($new);
        $taking->total = \count($new);
        if ($report->isGood() && $new !== []) {
            $this->entry->completed($batch, ...$new);
        }
        foreach ($report->isGood() && !$isPreview ? array_chunk($new, self::AT_ONCE) : [] as $some) {
            $this->entry->keep($batch, $by, true, ...$some);
            $taking->tell(\count($some));
        }

        return $report;
    }

    /** @return list<Draft> */
    private function read(string $text, LoggerMapping $mapping, Batch $batch, ImportReport $report): array
    {
        $drafts = [];
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
                $why = '"%s" is not a time in %s, or one that a clock change skips.';
                $report->refuse($index + 1, \sprintf($why, mb_substr($time, 0, 30), $mapping->zone->name));

                continue;
            }
            if ($at->isAfter($this->now->instant())) {
                $report->refuse($index + 1, \sprintf('"%s" lies ahead.', mb_substr($time, 0, 30)));

                continue;
            }
            try {
                $temp = Temperature::parse(
                    self::tenths($fields[$mapping->temperatureColumn] ?? '', $mapping->unit),
                    $mapping->unit,
                );
            } catch (MalformedTemperature $problem) {
                $report->refuse($index + 1, $problem->getMessage());

                continue;
            }
            $before = $at;
            $place = [$mapping->piece, $mapping->spot, $at->epoch, $temp->tenths, $temp->unit->value];
            $id = Uuid::v5($batch->id, 'logger/'.implode('/', $place));
            $reading = new Reading($temp, $mapping->piece, $mapping->spot, $mapping->thermometer, logger: true);
            $drafts[$id->toRfc4122()] = new Draft($id, $reading, $at);
        }
        if ($drafts === [] && $report->isGood()) {
            $report->refuse(1, 'there is no reading in it.');
        }

        return array_values($drafts);
    }

    /**
     * A time with its zone as it stands, else on the wall of the zone named; of two moments the one after the line
     * before.
     */
    private static function instant(string $time, LoggerMapping $mapping, Instant $before): ?Instant
    {
        try {
            return Instant::parse(str_replace(' ', 'T', $time));
        } catch (MalformedInstant) {
            return WallTime::parse(
                $time,
                $mapping->zone,
                $before->epoch === 0 ? Instant::ofEpoch(\PHP_INT_MIN >> 1) : $before,
            );
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
        $isHot =
            (float) $plain > ($unit === TemperatureUnit::Fahrenheit ? self::MIDDLE_FAHRENHEIT : self::MIDDLE_CELSIUS);

        return number_format(($isHot ? floor($tenths + self::NOISE) : ceil($tenths - self::NOISE)) / 10, 1, '.', '');
    }
}
