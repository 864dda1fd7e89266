<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Entry;

use Symfony\Component\HttpFoundation\InputBag;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Site\WallTime;
use Verjuicer\Core\Assess\Check\RawLeftoverCheck;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\MalformedTemperature;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Record\Extras;
use Verjuicer\Core\Record\Writer;

/** Which fields a kind of event has on a form, and how what was typed there becomes members of the open format and beyond it. */
final readonly class EntryForm
{
    public const CHOICES = [
        'oven' => ['still', 'convection', 'high_humidity'],
        'for' => ['hot_hold', 'immediate'],
        'plan' => ['hot_4h', 'cold_4h', 'cold_6h'],
        'feel' => ['tender', 'nearly', 'tight'],
        'why' => ['safety', 'waste', 'donated'],
        'on' => ['oven', 'stove', 'pit', 'steam_table', 'chafing_dish', 'cabinet'],
    ];

    /** Choices that may be left open. */
    public const OPEN_CHOICES = ['oven', 'feel', 'on'];

    /** Said by a tap, and not to be typed. */
    public const UNTYPED = ['step', 'stuffed', 'finding'];

    /** Words that are usual in a field; others may be typed. */
    public const USUAL = [
        'method' => ['rack under foil', 'towels', 'insulated box', 'switched-off oven', 'holding cabinet', 'open counter', 'shallow pans', 'blast chiller', 'ice bath', 'ice wand', 'walk-in rack', 'vacuum'],
        'with' => ['foil', 'paper', 'boat', 'pan'],
    ];

    private const TEMPERATURES = ['set', 'temp', 'around'];
    /** The greatest of each; the least is 1. */
    private const WHOLE = ['piece' => 500, 'depth_mm' => 1000, 'portions' => 100_000];
    private const MOST_MINUTES_AGO = 43_200;
    private const LONGEST = 2000;
    private const ENVELOPE = ['id' => 1, 'at' => 1, 'by' => 1, 'type' => 1, 'replaces' => 1, 'reason' => 1, 'recorded_at' => 1, 'imported' => 1];
    private const WEIGHTS = ['before_kg', 'after_kg', 'weight_kg'];

    /** @return list<string> in the order of the form; `reason` is the event's own */
    public static function fields(EventType $type): array
    {
        return match ($type) {
            EventType::Reading => ['temp', 'piece', 'spot', 'thermometer', 'feel'],
            EventType::Received => ['temp', 'supplier', 'lot'],
            EventType::ColdHold, EventType::HotHold => ['place'],
            EventType::Cook => ['pit', 'oven', 'set'],
            EventType::Rest => ['method', 'around'],
            EventType::Cool => ['method', 'depth_mm', 'around'],
            EventType::Pack => ['method', 'plan_name'],
            EventType::Serve => ['weight_kg', 'portions'],
            EventType::Discard => ['why', 'weight_kg'],
            EventType::Reheat => ['for', 'on'],
            EventType::TimeControl => ['plan'],
            EventType::Trim => ['before_kg', 'after_kg'],
            EventType::Season, EventType::Sauce, EventType::Spritz, EventType::Inject => ['recipe', 'weight_kg'],
            EventType::Wrap => ['with'],
            EventType::PitSet => ['set'],
            EventType::PitReading => ['temp'],
            EventType::ProbeMoved => ['piece', 'spot', 'to_spot'],
            EventType::Action => ['finding', 'text', 'other', 'evidence'],
            EventType::Note => ['text', 'ready_by', 'step'],
            EventType::Tenderize => ['stuffed'],
            default => [],
        };
    }

    /** @return array<string, string> an event as its form shows it */
    public static function typed(Event $event, Site $site): array
    {
        $typed = [];
        foreach ($event->detail->members() + $event->unknown as $name => $value) {
            $temperature = $value instanceof Temperature ? $value : (new Extras($event))->temperature($name);
            if ($temperature !== null) {
                $typed[$name] = $temperature->number().($temperature->unit === $site->unit ? '' : strtolower($temperature->unit->value));
            } elseif ($name === 'ready_by' && \is_string($value)) {
                $typed[$name] = WallTime::of(Instant::parse($value), $site->zone());
            } elseif (\is_scalar($value)) {
                $typed[$name] = (string) $value;
            }
        }

        return $typed;
    }

    /**
     * A wrong event with what was changed on its form, and all else as it was.
     *
     * @param InputBag<string> $form
     *
     * @throws EntryProblem if a field is wrong or missing
     */
    public static function corrected(Event $wrong, InputBag $form, Site $site, Instant $now): Entry
    {
        $members = (object) array_diff_key((array) Writer::event($wrong), self::ENVELOPE);
        $typed = self::typed($wrong, $site);
        foreach (self::fields($wrong->type) as $name) {
            $given = trim($form->getString($name));
            if ($given === ($typed[$name] ?? '')) {
                continue;
            }
            if ($given === '') {
                unset($members->{$name});
            } else {
                $members->{$name} = self::member($name, $given, $site, $now);
            }
        }

        if (isset($members->other)) {
            $members->text = $members->other;
            unset($members->other);
        }

        return Entry::of($wrong->type, $members, 0, null);
    }

    private static function member(string $name, string $given, Site $site, Instant $now): mixed
    {
        return match (true) {
            \in_array($name, self::TEMPERATURES, true) => self::temperature($given, $site),
            \in_array($name, self::WEIGHTS, true) => self::kilograms($given),
            isset(self::WHOLE[$name]) => self::whole($name, $given),
            $name === 'stuffed' => true,
            $name === 'ready_by' => WallTime::parse($given, $site->zone(), $now)?->rfc3339() ?? throw EntryProblem::noTime($given),
            mb_strlen($given) > self::LONGEST => throw EntryProblem::tooLong(self::LONGEST),
            default => $given,
        };
    }

    /**
     * @param InputBag<string> $form
     *
     * @throws EntryProblem if a field is wrong or missing
     */
    public static function entry(EventType $type, InputBag $form, Site $site, Instant $now, int $minutesAgo = 0): Entry
    {
        $members = new \stdClass();
        foreach (self::fields($type) as $name) {
            $given = trim($form->getString($name));
            if ($given !== '') {
                $members->{$name} = self::member($name, $given, $site, $now);
            }
        }
        if ($type === EventType::Action) {
            // What was typed goes before what was tapped; thrown-away left-over says it all by its name.
            $members->text = $members->other ?? $members->text ?? ($form->getString('finding') === RawLeftoverCheck::RULE ? null : throw EntryProblem::noAction());
            unset($members->other);
        }
        $reason = trim($form->getString('reason'));

        return Entry::of($type, $members, $minutesAgo, $reason === '' ? null : $reason);
    }

    /**
     * How long ago something happened; empty is no answer.
     *
     * @throws EntryProblem if it is no whole number of minutes up to thirty days
     */
    public static function minutesAgo(string $given): int
    {
        return preg_match('/^\d{1,5}$/D', $given) === 1 && (int) $given <= self::MOST_MINUTES_AGO ? (int) $given : throw EntryProblem::notMinutes($given, self::MOST_MINUTES_AGO);
    }

    private static function whole(string $name, string $given): int
    {
        return preg_match('/^\d{1,9}$/D', $given) === 1 && (int) $given >= 1 && (int) $given <= self::WHOLE[$name] ? (int) $given : throw EntryProblem::notWhole($given, self::WHOLE[$name]);
    }

    private static function temperature(string $given, Site $site): \stdClass
    {
        try {
            $temperature = Temperature::parse($given, $site->unit);
        } catch (MalformedTemperature) {
            throw EntryProblem::notATemperature($given);
        }

        return (object) [$temperature->unit->member() => $temperature->tenths / 10];
    }

    private static function kilograms(string $given): float
    {
        $number = str_replace(',', '.', $given);
        if (!is_numeric($number) || $number <= 0 || $number > 10_000) {
            throw EntryProblem::notAWeight($given);
        }

        return round((float) $number, 3);
    }
}
