<?php

declare(strict_types=1);

namespace Verjuicer\Core\Proof;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\MalformedInstant;

/** The rows of a proof in order, indexed for frequent questions. */
final class ProofRows
{
    /** @var array<string, array<string, array<string, mixed>>> by kind and id */
    private array $rows = [];

    /** @var array<string, list<string>> ids of events by batch */
    private array $events = [];

    /** @var array<string, array<string, mixed>> facts in force by `batch_fact` */
    private array $facts = [];

    /** @var array<string, string> last names of thermometers by id */
    private array $labels = [];

    /** @var array<string, list<array<string, mixed>>> checks by thermometer and moment */
    private array $checks = [];

    /** @var array<string, string> last names of pits by id */
    public array $pits = [];

    /** @var list<array<string, mixed>> the site as it was kept at one time or another */
    public array $sites = [];

    /** @param array<string, mixed> $row */
    public function add(string $kind, string $id, array $row): void
    {
        $this->rows[$kind][$id] = $row;
        $batch = self::text($row, 'batch_id');
        $content = self::map($row, 'content');
        if ($kind === 'event') {
            $this->events[$batch][] = $id;
        } elseif ($kind === 'batch_fact') {
            $this->facts[$batch] = self::map($row, 'facts') + ($this->facts[$batch] ?? []);
        } elseif ($kind === 'thermometer_check') {
            $this->checks[self::text($row, 'thermometer_id').' '.self::instant($row['at'] ?? null)][] = $row;
        } elseif ($kind === 'row_kept' && self::text($row, 'of_table') === 'thermometer') {
            $this->labels[self::text($row, 'row_id')] = self::text($content, 'label');
        } elseif ($kind === 'row_kept' && self::text($row, 'of_table') === 'pit') {
            $this->pits[self::text($row, 'row_id')] = self::text($content, 'name');
        } elseif ($kind === 'row_kept' && self::text($row, 'of_table') === 'site') {
            $this->sites[] = $content;
        }
    }

    /** @return array<string, mixed>|null */
    public function of(string $kind, string $id): ?array
    {
        return $this->rows[$kind][$id] ?? null;
    }

    /** @return list<string> ids of the events of a batch itself */
    public function eventsOf(string $batch): array
    {
        return $this->events[$batch] ?? [];
    }

    /** @return array<string, mixed> */
    public function factsOf(string $batch): array
    {
        return $this->facts[$batch] ?? [];
    }

    /** @return list<array<string, mixed>> checks of thermometers that are called so now, at a moment */
    public function checksOf(string $label, ?int $at): array
    {
        $checks = [];
        foreach (array_keys($this->labels, $label, true) as $thermometer) {
            $checks = [...$checks, ...$this->checks["$thermometer $at"] ?? []];
        }

        return $checks;
    }

    /** @return int|null seconds since 1970 */
    public static function instant(mixed $value): ?int
    {
        try {
            return \is_string($value) ? Instant::parse($value)->epoch : null;
        } catch (MalformedInstant) {
            return null;
        }
    }

    /** @param array<mixed> $row */
    public static function text(array $row, string $name): string
    {
        return \is_string($row[$name] ?? null) ? $row[$name] : '';
    }

    /**
     * @param array<mixed> $row
     *
     * @return array<string, mixed>
     */
    public static function map(array $row, string $name): array
    {
        /** @var array<string, mixed> */
        return \is_array($row[$name] ?? null) ? $row[$name] : [];
    }
}
