<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Series;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Series\Sample;

/** Every sample that came, as it came: only ever added to, a part of the table a day. */
final class RawSeries
{
    private const AT_ONCE = 500;

    private ?string $madeDay = null;

    public function __construct(private readonly Connection $connection)
    {
    }

    /**
     * @param list<int> $sequences
     *
     * @return array<int, ArrivedSample> those of a channel that are there already, by sequence
     */
    public function known(string $channelId, array $sequences): array
    {
        if ($sequences === []) {
            return [];
        }
        /** @var list<array{sequence: int, device_at: int, tenths: int|null, unit: string|null}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT sequence, extract(epoch FROM device_at)::bigint AS device_at, tenths, unit FROM series '
            .'WHERE channel_id = ? AND sequence IN (?)',
            [$channelId, $sequences],
            [1 => ArrayParameterType::INTEGER],
        );
        $known = [];
        foreach ($rows as $row) {
            $known[$row['sequence']] = new ArrivedSample(
                $channelId,
                $row['sequence'],
                Instant::ofEpoch($row['device_at']),
                Instant::ofEpoch($row['device_at']),
                self::temperature($row['tenths'], $row['unit']),
            );
        }

        return $known;
    }

    /** @param list<ArrivedSample> $arrived none of which is there */
    public function add(string $siteId, array $arrived, Instant $now): void
    {
        $day = gmdate('Y-m-d', $now->epoch);
        if ($arrived !== [] && $this->madeDay !== $day) {
            $this->makeDay($day);
        }
        foreach (array_chunk($arrived, self::AT_ONCE) as $chunk) {
            $rows = $values = [];
            foreach ($chunk as $one) {
                $rows[] = '(?, ?, ?, ?, ?, ?, ?, ?, ?)';
                array_push(
                    $values,
                    $one->channelId,
                    $one->sequence,
                    $day,
                    $siteId,
                    $one->deviceAt->rfc3339(),
                    $one->at->rfc3339(),
                    $now->rfc3339(),
                    $one->temp?->tenths,
                    $one->temp?->unit->value,
                );
            }
            $this->connection->executeStatement(
                'INSERT INTO series (channel_id, sequence, received_on, site_id, device_at, at, received_at, tenths, '
                .'unit) VALUES '.implode(', ', $rows),
                $values,
            );
        }
    }

    /** Makes room for the samples that arrive on a day. */
    public function makeDay(string $day): void
    {
        $this->connection->executeStatement('SELECT series_day(?::date)', [$day]);
        $this->madeDay = $day;
    }

    /**
     * @param int $from seconds since 1970
     * @param int $to the last of them
     *
     * @return iterable<Sample> of one channel, by the time they were of
     */
    public function between(string $siteId, string $channelId, int $from, int $to): iterable
    {
        /** @var iterable<array{sequence: int, at: int, tenths: int|null, unit: string|null}> $rows */
        $rows = $this->connection->iterateAssociative(
            <<<'SQL'
            SELECT sequence, extract(epoch FROM at)::bigint AS at, tenths, unit FROM series
            WHERE site_id = ? AND channel_id = ? AND at >= to_timestamp(?) AND at <= to_timestamp(?)
            ORDER BY at, sequence
            SQL,
            [$siteId, $channelId, $from, $to],
        );
        foreach ($rows as $row) {
            yield new Sample($row['sequence'], $row['at'], self::temperature($row['tenths'], $row['unit']));
        }
    }

    /**
     * Since when every sample of a channel up to a moment is so; at most back to the beginning of the day before, by
     * UTC: a longer state starts over once a day.
     *
     * @param \Closure(Temperature): bool $isSo
     *
     * @return int|null seconds since 1970; null where the last one is not so
     */
    public function since(string $siteId, string $channelId, int $until, \Closure $isSo): ?int
    {
        $since = null;
        $earliest = (intdiv($until, 86_400) - 1) * 86_400;
        for ($before = $until + 1; $before > $earliest; $before = $rows[\count($rows) - 1]['at']) {
            /** @var list<array{at: int, tenths: int, unit: string}> $rows */
            $rows = $this->connection->fetchAllAssociative(
                <<<'SQL'
                SELECT extract(epoch FROM at)::bigint AS at, tenths, unit FROM series
                WHERE site_id = ? AND channel_id = ? AND at < to_timestamp(?) AND at >= to_timestamp(?)
                  AND tenths IS NOT NULL
                ORDER BY at DESC LIMIT ?
                SQL,
                [$siteId, $channelId, $before, $earliest, self::AT_ONCE],
            );
            foreach ($rows as $row) {
                if (!$isSo(Temperature::ofTenths($row['tenths'], TemperatureUnit::from($row['unit'])))) {
                    return $since;
                }
                $since = $row['at'];
            }
            if (\count($rows) < self::AT_ONCE) {
                break;
            }
        }

        return $since;
    }

    private static function temperature(?int $tenths, ?string $unit): ?Temperature
    {
        return $tenths === null || $unit === null
            ? null
            : Temperature::ofTenths($tenths, TemperatureUnit::from($unit));
    }
}
