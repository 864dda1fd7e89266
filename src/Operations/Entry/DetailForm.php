<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Site\WallTime;
use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\Field;
use Verjuicer\Core\Event\FieldInput;
use Verjuicer\Core\Event\FieldType;
use Verjuicer\Core\Event\Kind;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\Weight;
use Verjuicer\Core\Record\Event;

/**
 * The form of a kind of event: which fields it has, and how what was typed there becomes what the event says. It
 * follows from the catalogue.
 */
final readonly class DetailForm
{
    private const LONGEST = 2000;

    public function __construct(private LineWords $words, private MeasureFormatter $figures, private Now $now)
    {
    }

    /** @return list<Field> what is typed or chosen, the short ones first */
    public static function fields(Kind $kind): array
    {
        $fields = array_filter(
            $kind->fields,
            static fn (Field $field): bool => $field->says->input !== FieldInput::Carried,
        );
        $place = static fn (Field $field): int => match (true) {
            $field->isRequired => 0,
            $field->says->input === FieldInput::Listed => 1,
            $field->type === FieldType::Choice => 2,
            default => 3,
        };
        usort($fields, static fn (Field $one, Field $other): int => $place($one) <=> $place($other));

        return $fields;
    }

    /** Whether the words that go with it are the event's own reason. */
    public static function asksReason(Kind $kind): bool
    {
        foreach ($kind->declared->sayings as $saying) {
            if ($saying->words === 'reason') {
                return true;
            }
        }

        return false;
    }

    /**
     * What was typed, with what a tap says by itself.
     *
     * @param array<string, string> $sets
     *
     * @return Detail|null null where something is wrong or missing: the form says what
     */
    public function detail(Kind $kind, FormInput $input, Site $site, array $sets = []): ?Detail
    {
        $values = FieldWords::values($kind, $sets);
        foreach (self::fields($kind) as $field) {
            $values[$field->name] ??= $this->value($kind, $field, $input, $site);
            if ($field->isRequired && $values[$field->name] === null) {
                $input->refuse($field->name, 'entry.problem.incomplete.'.$field->name);
            }
        }

        return $input->isGood() ? $kind->make($values) : null;
    }

    /** @return array<string, string> an event as its form shows it */
    public function typed(Event $event, Site $site): array
    {
        $kind = $event->kind();
        $values = $kind->values($event->detail);
        $typed = [];
        foreach (self::fields($kind) as $field) {
            $value = $values[$field->name];
            $typed[$field->name] = match (true) {
                $value instanceof Temperature => $value->number()
                    .($value->unit === $site->unit ? '' : strtolower($value->unit->value)),
                $value instanceof Weight => $this->figures->weight($value->grams()),
                $value instanceof Instant => WallTime::of($value, $site->zone()),
                $value instanceof LocalDate => $value->iso(),
                $value instanceof \BackedEnum => (string) $value->value,
                $value === true => '1',
                \is_string($value) => $this->words->shown($kind, $field->name, $value),
                \is_int($value) && $field->isLength() => $this->figures->length((float) $value),
                \is_int($value) => (string) $value,
                default => '',
            };
        }

        return $typed;
    }

    /**
     * What was changed on the form of an event; what was not touched is not among it.
     *
     * @return array<string, mixed> by field name; null where something was taken away
     */
    public function changes(Event $wrong, FormInput $input, Site $site): array
    {
        $kind = $wrong->kind();
        $typed = $this->typed($wrong, $site);
        $changes = [];
        foreach (self::fields($kind) as $field) {
            $isSent = $input->typed->has($field->name);
            if ($isSent && $input->text($field->name, most: self::LONGEST) !== $typed[$field->name]) {
                $changes[$field->name] = $this->value($kind, $field, $input, $site);
                if ($field->isRequired && $changes[$field->name] === null) {
                    $input->refuse($field->name, 'entry.problem.incomplete.'.$field->name);
                }
            }
        }

        return $changes;
    }

    private function value(Kind $kind, Field $field, FormInput $input, Site $site): mixed
    {
        $name = $field->name;

        return match ($field->type) {
            FieldType::Temperature => $input->temperature($name, $site->unit),
            FieldType::Weight => ($grams = $input->grams($name)) === null ? null : Weight::ofGrams($grams),
            FieldType::Whole => $field->isLength()
                ? $this->length($name, $field, $input)
                : $input->whole($name, 1, $field->says->most),
            FieldType::Flag => $input->isOn($name),
            FieldType::Moment => $this->moment($name, $input, $site),
            FieldType::Date => ($day = $input->day($name)) === null ? null : LocalDate::ofIso($day),
            FieldType::Choice => $field->choices === null ? null : $input->choice($name, $field->choices),
            FieldType::Text => ($words = $input->text($name, most: self::LONGEST)) === ''
                ? null
                : $this->words->usual($kind, $name, $words),
            FieldType::Words => null,
        };
    }

    /** @return int|null whole millimeters */
    private function length(string $name, Field $field, FormInput $input): ?int
    {
        $length = $input->millimeters($name, 1, $field->says->most, 'portion.problem.depth');

        return $length === null ? null : (int) round($length);
    }

    private function moment(string $name, FormInput $input, Site $site): ?Instant
    {
        $given = $input->wallMinute($name);
        $at = $given === '' ? null : WallTime::parse($given, $site->zone(), $this->now->instant());
        if ($given !== '' && $at === null) {
            $input->refuse($name, 'entry.problem.no_time', ['{given}' => mb_substr($given, 0, 20)]);
        }

        return $at;
    }
}
