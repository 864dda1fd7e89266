<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

use Verjuicer\Core\Event\DetailReader;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\FieldValue;
use Verjuicer\Core\Event\Kind;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Event\Kinds\Voided;
use Verjuicer\Core\Food\Animal;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\Integrity;
use Verjuicer\Core\Food\ProcedureKind;
use Verjuicer\Core\Food\Treatment;
use Verjuicer\Core\Json\DocumentProblems;
use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\TimeZone;
use Verjuicer\Core\Measure\UnknownTimeZone;
use Verjuicer\Core\Ruleset\RuleSetLibrary;
use Verjuicer\Core\Ruleset\StricterLimits;

/** Reads `verjuicer-record/1`. Either the whole record is right or every fault is named; nothing is guessed. */
final readonly class Reader
{
    public const FORMAT = 'verjuicer-record/1';
    private const MOST_TAG = 999;
    private const READINGS = 4000;
    private const MANY = 200; // events, from which on the same reading is one object

    public function __construct(private RuleSetLibrary $ruleSets)
    {
    }

    /** @throws InvalidRecord if the text is not JSON or not a record */
    public function read(string $json): Record
    {
        try {
            $data = json_decode($json, flags: \JSON_THROW_ON_ERROR);
        } catch (\JsonException $problem) {
            throw InvalidRecord::notJson($problem->getMessage());
        }
        if (!$data instanceof \stdClass) {
            throw InvalidRecord::notJson('not an object');
        }

        return $this->readData($data);
    }

    /**
     * The same from data that is already decoded, as the database holds it.
     *
     * @throws InvalidRecord if it is not a record
     */
    public function readData(\stdClass $data): Record
    {
        $problems = new DocumentProblems();
        $top = new Fields($data, null, '', $problems);
        $format = $top->text('format');
        if ($format !== self::FORMAT) {
            $top->wrong('format', \sprintf('must be "%s"', self::FORMAT));
        }
        $rules = $top->requiredText('rules');
        if ($rules !== null && !$this->ruleSets->has($rules)) {
            $known = implode(', ', $this->ruleSets->ids());
            $top->wrong('rules', \sprintf('is not a rule set known here: write one of %s', $known));
        }
        $asOf = $top->instant('as_of');
        $siteFields = $top->object('site');
        $site = $siteFields === null ? null : self::site($siteFields);
        $thermometers = self::thermometers($top);
        $batch = $top->object('batch');
        $code = $batch?->text('code');
        $productFields = $batch?->object('product');
        $product = $productFields === null ? null : self::product($productFields);
        $events = $batch === null ? [] : self::events($batch);
        $tag = $batch === null ? null : self::tag($batch);
        $portion = $batch === null ? null : self::portion($batch);
        $found = $problems->all();
        if ($found !== []) {
            throw InvalidRecord::because($found);
        }
        \assert(
            $site !== null && $rules !== null && $batch !== null && $product !== null,
            'each missing one is a problem',
        );

        return new Record(
            $site,
            $rules,
            $asOf,
            $thermometers,
            $code,
            $product,
            $events,
            $tag,
            $portion,
            $top->unknown(),
            $batch->unknown(),
        );
    }

    /**
     * Events alone, that go on with a record that was read.
     *
     * @param list<\stdClass> $data
     *
     * @return list<Event> in their order
     *
     * @throws InvalidRecord if one is no event
     */
    public function readEvents(array $data): array
    {
        $problems = new DocumentProblems();
        $events = self::events(new Fields((object) ['events' => $data], null, '', $problems));
        $found = $problems->all();

        return $found === [] ? $events : throw InvalidRecord::because($found);
    }

    private static function site(Fields $fields): ?RecordedSite
    {
        $zone = null;
        $name = $fields->requiredText('timezone');
        if ($name !== null) {
            try {
                $zone = TimeZone::named($name);
            } catch (UnknownTimeZone $problem) {
                $fields->wrongBy('timezone', $problem);
            }
        }
        $unit = $fields->requiredChoice('unit', TemperatureUnit::class);
        $siteName = $fields->text('name');
        $elevation = $fields->whole('elevation_m');
        $house = self::stricter($fields->has('house_limits') ? $fields->object('house_limits') : null);
        $procedures = $fields->has('procedures') ? self::procedures($fields) : null;

        return $zone === null || $unit === null
            ? null
            : new RecordedSite($siteName, $zone, $unit, $elevation, $fields->unknown(), $house, $procedures);
    }

    /** @return list<Procedure> */
    private static function procedures(Fields $site): array
    {
        $procedures = [];
        foreach ($site->objects('procedures', false) as $fields) {
            $kind = $fields->requiredChoice('kind', ProcedureKind::class);
            $number = $fields->requiredText('number');
            $version = $fields->count('version', 1);
            $from = $fields->requiredInstant('from');
            $to = $fields->instant('to');
            if ($kind !== null && $number !== null && $from !== null) {
                $procedures[] = new Procedure($kind, $number, $version, $from, $to);
            }
        }

        return $procedures;
    }

    /** House rules that are stricter than our defaults, in seconds. */
    private static function stricter(?Fields $fields): StricterLimits
    {
        if ($fields === null) {
            return new StricterLimits();
        }
        $seconds = [];
        foreach (StricterLimits::NAMES as $name) {
            $own = $fields->whole($name);
            if ($own !== null && $own < 60) {
                $fields->wrong($name, 'must be at least 60 seconds');
            } elseif ($own !== null) {
                $seconds[$name] = $own;
            }
        }

        return new StricterLimits($seconds);
    }

    /** @return list<RecordedThermometer> */
    private static function thermometers(Fields $top): array
    {
        $thermometers = [];
        foreach ($top->objects('thermometers', false) as $fields) {
            $id = $fields->requiredText('id');
            $checks = [];
            foreach ($fields->objects('checks', false) as $check) {
                $read = self::check($check);
                if ($read !== null) {
                    $checks[] = $read;
                }
            }
            if ($id === null) {
                continue;
            }
            if (isset($thermometers[$id])) {
                $fields->wrong('id', 'is the id of another thermometer: every id must be its own');
            }
            $thermometers[$id] = new RecordedThermometer($id, $checks, $fields->unknown());
        }

        return array_values($thermometers);
    }

    private static function check(Fields $fields): ?ThermometerCheck
    {
        $at = $fields->requiredInstant('at');
        $method = $fields->text('method');
        $expected = $fields->requiredTemperature('expected');
        $read = $fields->requiredTemperature('read');
        if ($at === null || $expected === null || $read === null) {
            return null;
        }
        if ($expected->unit !== $read->unit) {
            $fields->wrong('read', 'must be in the unit of "expected"');
        }

        return new ThermometerCheck($at, $method, $expected, $read, $fields->unknown());
    }

    private static function product(Fields $fields): ?RecordedProduct
    {
        $name = $fields->text('name');
        $animal = $fields->requiredChoice('animal', Animal::class);
        $form = $fields->requiredChoice('form', Form::class);
        $integrity = $fields->requiredChoice('integrity', Integrity::class);
        $weight = $fields->kilograms('raw_weight_kg');
        $pieces = $fields->count('pieces', 1);
        $pieceNumbers = $fields->numbers('piece_numbers');
        $stuffed = $fields->flag('stuffed');
        $wild = $fields->flag('wild');
        $advisory = $fields->flag('advisory');
        $treatments = $fields->choices('treatments', Treatment::class);
        if ($animal === null || $form === null || $integrity === null) {
            return null;
        }
        if (($animal === Animal::None) !== ($form === Form::Side)) {
            $fields->wrong('form', 'is "side" exactly where "animal" is "none": a side holds no raw animal food');
        }
        $extensions = $fields->unknown();

        return new RecordedProduct(
            $name,
            $animal,
            $form,
            $integrity,
            $weight,
            $pieces,
            $stuffed,
            $wild,
            $advisory,
            $pieceNumbers,
            $extensions,
            $treatments,
        );
    }

    /** @return list<Event> */
    private static function events(Fields $batch): array
    {
        $events = [];
        $ids = [];
        $replacing = [];
        $before = null;
        foreach ($batch->objects('events', true) as $fields) {
            $id = $fields->requiredText('id');
            $at = $fields->requiredInstant('at');
            $before = $at = $at !== null && $at->epoch === $before?->epoch ? $before : $at;
            $by = FieldValue::word($fields->requiredText('by'));
            $kind = self::kind($fields);
            $replaces =
                $kind?->class === Voided::class ? $fields->requiredText('replaces') : $fields->text('replaces');
            $reason = $fields->text('reason');
            $detail = $kind === null ? null : DetailReader::read($kind, $fields);
            if ($detail instanceof Reading && \count($events) > self::MANY) {
                $detail = self::same($detail);
            }
            if ($id !== null) {
                if (isset($ids[$id])) {
                    $fields->wrong('id', 'is the id of another event: every id must be its own');
                }
                $ids[$id] = true;
            }
            if ($replaces !== null) {
                $replacing[] = [$fields, $id, $replaces];
            }
            if ($id !== null && $at !== null && $by !== null && $detail !== null) {
                $imported = self::imported($fields);
                $recordedAt = self::quietly(
                    $fields,
                    'recorded_at',
                    static fn (Fields $one) => $one->instant('recorded_at'),
                );
                $extensions = $fields->unknown();
                $events[] = new Event($id, $at, $by, $detail, $replaces, $reason, $recordedAt, $imported, $extensions);
            }
        }
        foreach ($replacing as [$fields, $id, $replaces]) {
            if ($replaces === $id) {
                $fields->wrong('replaces', 'names the event itself: name the earlier event whose place it takes');
            } elseif (!isset($ids[$replaces])) {
                $fields->wrong(
                    'replaces',
                    'names no event of this record: name the earlier event whose place it takes',
                );
            }
        }

        return $events;
    }

    /** The same for the same: a long record is full of readings of a few spots, a few degrees apart. */
    private static function same(Reading $detail): Reading
    {
        /** @var array<string, Reading> $readings */
        static $readings = [];
        if (\count($readings) > self::READINGS) {
            $readings = [];
        }
        $key = $detail->temp->tenths.$detail->temp->unit->value.$detail->piece
            .($detail->logger ? '!' : ' ').$detail->feel?->value
            .' '.\strlen($detail->spot).' '.$detail->spot
            .($detail->thermometer === null ? '' : ' '.$detail->thermometer);

        return $readings[$key] ??= $detail;
    }

    private static function kind(Fields $fields): ?Kind
    {
        $name = $fields->text('type');
        $kind = $name === null ? null : EventKinds::named($name);
        if ($kind === null) {
            $known = implode(', ', array_keys(EventKinds::all()));
            $what = $fields->has('type') ? 'is not known: write one of %s' : 'is missing: one of %s is required';
            $fields->wrong('type', \sprintf($what, $known));
        }

        return $kind;
    }

    private static function imported(Fields $fields): ?ImportOrigin
    {
        return self::quietly($fields, 'imported', static function (Fields $one): ?ImportOrigin {
            $imported = $one->object('imported');
            $by = $imported?->requiredText('by');

            return $by === null ? null : new ImportOrigin($by, $imported?->instant('says_recorded_at'));
        });
    }

    private static function tag(Fields $batch): ?int
    {
        return self::quietly($batch, 'tag', static function (Fields $one): ?int {
            $tag = $one->whole('tag');
            if ($tag !== null && ($tag < 1 || $tag > self::MOST_TAG)) {
                $one->wrong('tag', 'is out of range');
            }

            return $tag;
        });
    }

    private static function portion(Fields $batch): ?Portion
    {
        $of = self::quietly($batch, 'portion_of', static fn (Fields $one): ?string => $one->text('portion_of'));
        if ($of === null) {
            return null;
        }
        $depth = static fn (Fields $one): ?int => $one->counted('depth_mm');

        return new Portion(
            $of,
            self::quietly(
                $batch,
                'portion_weight_kg',
                static fn (Fields $one) => $one->kilograms('portion_weight_kg'),
            )?->grams(),
            self::quietly($batch, 'container', static fn (Fields $one): ?string => $one->text('container')),
            self::quietly($batch, 'depth_mm', $depth),
        );
    }

    /**
     * A member of ours: one of another shape is left among the extensions, and is no fault.
     *
     * @template T
     *
     * @param \Closure(Fields): T $read
     *
     * @return T|null
     */
    private static function quietly(Fields $fields, string $name, \Closure $read): mixed
    {
        if (!$fields->has($name)) {
            $fields->take($name);

            return null;
        }
        $problems = new DocumentProblems();
        $value = $read($fields->alone($name, $problems));
        if ($problems->all() !== []) {
            return null;
        }
        $fields->take($name);

        return $value;
    }
}
