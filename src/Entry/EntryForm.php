<?php

declare(strict_types=1);

namespace Verjuicer\App\Entry;

use Symfony\Component\HttpFoundation\InputBag;
use Verjuicer\App\Site\Site;
use Verjuicer\Core\Measure\MalformedTemperature;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Record\EventType;

/** Which fields a kind of event has on a form, and how what was typed there becomes members of the open format. */
final readonly class EntryForm
{
    public const CHOICES = ['oven' => ['still', 'convection', 'high_humidity'], 'for' => ['hot_hold', 'immediate'], 'plan' => ['hot_4h', 'cold_4h', 'cold_6h']];

    private const TEMPERATURES = ['set', 'temp'];
    private const WHOLE = ['piece'];

    /** @return list<string> in the order of the form; `reason` is the event's own */
    public static function fields(EventType $type): array
    {
        return match ($type) {
            EventType::Reading => ['temp', 'piece', 'spot', 'thermometer'],
            EventType::Received => ['temp', 'supplier', 'lot'],
            EventType::ColdHold, EventType::HotHold => ['place'],
            EventType::Cook => ['oven', 'set'],
            EventType::Rest, EventType::Cool, EventType::Pack => ['method'],
            EventType::Reheat => ['for'],
            EventType::TimeControl => ['plan'],
            EventType::Wrap => ['with'],
            EventType::PitSet => ['set'],
            EventType::PitReading => ['temp'],
            EventType::ProbeMoved => ['piece', 'spot'],
            EventType::Action => ['finding', 'text'],
            EventType::Note => ['text'],
            default => [],
        };
    }

    /**
     * @param InputBag<string> $form
     *
     * @throws EntryProblem if a field is wrong or missing
     */
    public static function entry(EventType $type, InputBag $form, Site $site, int $minutesAgo = 0): Entry
    {
        $members = new \stdClass();
        foreach (self::fields($type) as $name) {
            $given = trim($form->getString($name));
            if ($given === '') {
                continue;
            }
            $members->{$name} = match (true) {
                \in_array($name, self::TEMPERATURES, true) => self::temperature($given, $site),
                \in_array($name, self::WHOLE, true) && ctype_digit($given) => (int) $given,
                default => $given,
            };
        }
        $reason = trim($form->getString('reason'));

        return Entry::of($type, $members, $minutesAgo, $reason === '' ? null : $reason);
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
}
