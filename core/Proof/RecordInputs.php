<?php

declare(strict_types=1);

namespace Verjuicer\Core\Proof;

/** Whether a record matches the rows it was made from: its events, thermometer checks, batch and site. */
final readonly class RecordInputs
{
    /** Columns of an event's row that are not among its members. */
    private const ENVELOPE = ['id' => 1, 'at' => 1, 'by' => 1, 'type' => 1, 'recorded_at' => 1];

    /** Facts of a batch by their member in the record: the column, and the name in `batch_fact`. */
    private const FACTS = [
        'name' => ['product_name', 'productName'],
        'animal' => ['animal', 'animal'],
        'form' => ['form', 'form'],
        'integrity' => ['integrity', 'integrity'],
        'pieces' => ['pieces', 'pieces'],
        'wild' => ['is_wild', 'isWild'],
        'advisory' => ['has_advisory', 'hasAdvisory'],
    ];
    private const OF_SITE = ['name', 'timezone', 'unit', 'elevation_m'];

    /** More generations than a batch is ever divided in. */
    private const GENERATIONS = 20;

    public function __construct(private ProofRows $rows, private ProofReport $checked)
    {
    }

    /** @param string $id of its batch */
    public function compare(\stdClass $record, string $id, string $code): void
    {
        /** @var array<string, mixed> $data */
        $data = json_decode((string) json_encode($record), true);
        $batch = ProofRows::map($data, 'batch');
        $known = [];
        $events = ProofRows::map($batch, 'events');
        foreach ($events as $event) {
            ++$this->checked->events;
            $event = \is_array($event) ? $event : [];
            $of = ProofRows::text($event, 'id');
            $known[$of] = true;
            $row = $this->rows->of('event', $of);
            $ofPit = $row === null ? $this->rows->of('site_event', $of) : null;
            $isSame = match (true) {
                $row !== null => $this->isOfRow($event, $row, $id),
                $ofPit !== null => $this->isOfPit($event, $ofPit),
                default => null,
            };
            if ($isSame !== true) {
                $this->checked->add(
                    $isSame === null ? ProofFault::EventNotWritten : ProofFault::EventDiffers,
                    "$code $of",
                );
            }
        }
        foreach ($this->rows->eventsOf($id) as $of) {
            if (!isset($known[$of])) {
                $this->checked->add(ProofFault::EventLeftOut, "$code $of");
            }
        }
        foreach (ProofRows::map($data, 'thermometers') as $thermometer) {
            $this->thermometer(\is_array($thermometer) ? $thermometer : [], $code);
        }
        $product = ProofRows::map($batch, 'product');
        if (!$this->isOfBatch($product, ProofRows::text($data, 'rules'), self::wasStuffed($events), $id)) {
            $this->checked->add(ProofFault::BatchDiffers, $code);
        }
        if (!$this->isOfSite(ProofRows::map($data, 'site'))) {
            $this->checked->add(ProofFault::SiteDiffers, $code);
        }
    }

    /**
     * @param array<mixed> $event
     * @param array<string, mixed> $row
     */
    private function isOfRow(array $event, array $row, string $id): bool
    {
        $members = ProofRows::map($row, 'members');
        foreach (['replaces', 'reason'] as $name) {
            if (($row[$name] ?? null) !== null) {
                $members[$name] = $row[$name];
            }
        }

        return $this->isOfFamily(ProofRows::text($row, 'batch_id'), $id)
            && ProofRows::text($event, 'type') === ProofRows::text($row, 'type')
            && self::isSameEnvelope($event, $row)
            && self::isSame(array_diff_key($event, self::ENVELOPE), $members);
    }

    /**
     * @param array<mixed> $event
     * @param array<string, mixed> $row
     */
    private function isOfPit(array $event, array $row): bool
    {
        $members = ProofRows::map($row, 'members');
        [$type, $said, $written] = match (ProofRows::text($row, 'type')) {
            'set' => ['pit_set', $event['set'] ?? null, $members['temp'] ?? null],
            'reading' => ['pit_reading', $event['temp'] ?? null, $members['temp'] ?? null],
            default => ['note', $event['text'] ?? null, $members['words'] ?? null],
        };

        return ProofRows::text($row, 'subject') === 'pit'
            && ProofRows::text($event, 'pit') === ($this->rows->pits[ProofRows::text($row, 'subject_id')] ?? null)
            && ProofRows::text($event, 'type') === $type
            && self::isSameEnvelope($event, $row)
            && self::isSame($said, $written);
    }

    /**
     * @param array<mixed> $event
     * @param array<string, mixed> $row
     */
    private static function isSameEnvelope(array $event, array $row): bool
    {
        return ProofRows::text($event, 'by') === ProofRows::text($row, 'initials')
            && ProofRows::instant($event['at'] ?? null) === ProofRows::instant($row['at'] ?? null)
            && ProofRows::instant($event['recorded_at'] ?? null) === ProofRows::instant($row['recorded_at'] ?? null);
    }

    /** Whether a row is of this batch, or of one it was split off. */
    private function isOfFamily(string $batch, string $id): bool
    {
        for ($generation = 0; $id !== '' && $generation < self::GENERATIONS; ++$generation) {
            if ($id === $batch) {
                return true;
            }
            $id = ProofRows::text($this->rows->of('batch', $id) ?? [], 'parent_id');
        }

        return false;
    }

    /** @param array<mixed> $thermometer */
    private function thermometer(array $thermometer, string $code): void
    {
        $label = ProofRows::text($thermometer, 'id');
        foreach (ProofRows::map($thermometer, 'checks') as $check) {
            $check = \is_array($check) ? $check : [];
            $written = array_filter(
                $this->rows->checksOf($label, ProofRows::instant($check['at'] ?? null)),
                static fn (array $row): bool => ProofRows::text($row, 'method') === ProofRows::text($check, 'method')
                    && self::isSame($row['expected'] ?? null, $check['expected'] ?? null)
                    && self::isSame($row['read'] ?? null, $check['read'] ?? null),
            );
            if ($written === []) {
                $this->checked->add(ProofFault::CheckNotWritten, "$code $label");
            }
        }
    }

    /** @param array<string, mixed> $product */
    private function isOfBatch(array $product, string $rules, bool $wasStuffed, string $id): bool
    {
        $row = $this->rows->of('batch', $id);
        if ($row === null || ProofRows::text($row, 'rule_set') !== $rules) {
            return false;
        }
        $facts = $this->rows->factsOf($id);
        foreach (self::FACTS as $member => [$column, $fact]) {
            $written = \array_key_exists($fact, $facts) ? $facts[$fact] : $row[$column] ?? null;
            if (!self::isSame($product[$member] ?? (\is_bool($written) ? false : null), $written)) {
                return false;
            }
        }
        $isStuffed = \array_key_exists('isStuffed', $facts) ? $facts['isStuffed'] : $row['is_stuffed'] ?? false;
        if (($product['stuffed'] ?? false) !== ($isStuffed === true || $wasStuffed)) {
            return false;
        }
        $grams = \array_key_exists('rawGrams', $facts) ? $facts['rawGrams'] : $row['raw_grams'] ?? null;
        $kilograms = $product['raw_weight_kg'] ?? null;
        $said = \is_int($kilograms) || \is_float($kilograms) ? (int) round(1000 * $kilograms) : null;

        return self::isSame($said, $grams);
    }

    /**
     * Whether it was stuffed after it was begun, and that was not voided.
     *
     * @param array<mixed> $events
     */
    private static function wasStuffed(array $events): bool
    {
        $stuffings = $replaced = [];
        foreach ($events as $event) {
            $event = \is_array($event) ? $event : [];
            $replaced[ProofRows::text($event, 'replaces')] = true;
            if (ProofRows::text($event, 'type') === 'tenderize' && ($event['stuffed'] ?? null) === true) {
                $stuffings[ProofRows::text($event, 'id')] = true;
            }
        }

        return array_diff_key($stuffings, $replaced) !== [];
    }

    /** @param array<string, mixed> $site as it was when the batch was begun: as it was kept at some time */
    private function isOfSite(array $site): bool
    {
        $of = static fn (array $one): array => array_intersect_key($one, array_fill_keys(self::OF_SITE, true));
        foreach ($this->rows->sites as $kept) {
            if (
                self::isSame($of($site), $of($kept))
                && self::isSame(ProofRows::map($site, 'house_limits'), ProofRows::map($kept, 'house_limits'))
            ) {
                return true;
            }
        }

        return false;
    }

    /** Numbers are equal by value, objects by their members in any order. */
    private static function isSame(mixed $one, mixed $other): bool
    {
        if (\is_array($one) && \is_array($other)) {
            $one = array_filter($one, static fn (mixed $value): bool => $value !== null);
            $other = array_filter($other, static fn (mixed $value): bool => $value !== null);
            if (array_diff_key($one, $other) !== [] || array_diff_key($other, $one) !== []) {
                return false;
            }
            foreach ($one as $name => $value) {
                if (!self::isSame($value, $other[$name])) {
                    return false;
                }
            }

            return true;
        }
        if ((\is_int($one) || \is_float($one)) && (\is_int($other) || \is_float($other))) {
            return (float) $one === (float) $other;
        }

        return $one === $other;
    }
}
