<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Form;

use Symfony\Component\HttpFoundation\InputBag;
use Symfony\Component\HttpFoundation\ParameterBag;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Translation\TranslatableMessage;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Platform\Wording\LengthUnit;
use Verjuicer\App\Platform\Wording\PressureUnit;
use Verjuicer\App\Platform\Wording\WeightUnit;
use Verjuicer\Core\Measure\MalformedTemperature;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;

/** The input of a form, read field by field. Problems are collected, and the input stays. */
final class FormInput
{
    /** "5 lb 3 oz", "2.3 kg", "1 1/2 in": an amount with its own unit, regardless of the unit shown with the field. */
    private const AMOUNT = '\d{1,7}(?:[.,]\d{1,4})?(?:\s+[1-9]\/[1-9]\d?)?|[1-9]\/[1-9]\d?';
    /** A weight shown in pounds may differ this much from the stored one, in grams. */
    private const SHOWN_WITHIN = 1.5;

    /** "2 d 4 h", "1 h 30", "90 min", "90". */
    private const LENGTH = '/^(?:(\d{1,2}) ?d\b ?)?(?:(\d{1,3}) ?h\b ?)?(?:(\d{1,5})(?: ?min)?)?$/D';

    /** @var array<string, TranslatableMessage> by field: how to fix it */
    public array $problems = [];

    /** @param InputBag<string> $typed */
    private function __construct(public readonly InputBag $typed)
    {
    }

    /** The submitted fields; a field that no form of ours has, or a list instead of a text, is ignored. */
    public static function of(Request $request): self
    {
        return self::filled(self::texts($request->request));
    }

    /** The query of an address. */
    public static function asked(Request $request): self
    {
        return self::filled(self::texts($request->query));
    }

    /** @param array<string, string> $values */
    public static function filled(array $values): self
    {
        /** @var InputBag<string> $typed */
        $typed = new InputBag($values);

        return new self($typed);
    }

    public function isGood(): bool
    {
        return $this->problems === [];
    }

    /** @param array<string, string> $values of the sentence */
    public function refuse(string $field, string $key, array $values = []): void
    {
        $this->problems[$field] ??= new TranslatableMessage($key, $values);
    }

    /** The client's id of the entry, so that a retry is saved once. */
    public function id(string $field = 'id'): Uuid
    {
        $given = $this->typed->getString($field);
        if (Uuid::isValid($given)) {
            return Uuid::fromString($given);
        }
        $this->refuse('form', 'entry.problem.no_id');

        return Uuid::v7();
    }

    /** @return string trimmed; empty where nothing was typed */
    public function text(string $field, bool $isRequired = false, int $most = 200): string
    {
        $given = trim(mb_scrub($this->typed->getString($field)));
        if ($given === '' && $isRequired) {
            $this->refuse($field, 'form.problem.required');
        } elseif (mb_strlen($given) > $most) {
            $this->refuse($field, 'form.problem.too_long');
        }

        return $given;
    }

    public function whole(string $field, int $least, int $most, bool $isRequired = false): ?int
    {
        $given = $this->text($field, $isRequired);
        if ($given === '') {
            return null;
        }
        if (preg_match('/^\d{1,9}$/D', $given) !== 1 || (int) $given < $least || (int) $given > $most) {
            $this->refuse($field, 'form.problem.whole', [
                '{given}' => mb_substr($given, 0, 20),
                '{least}' => (string) $least,
                '{most}' => number_format($most),
            ]);

            return null;
        }

        return (int) $given;
    }

    /** A number that may have decimals, with a point or a comma; not less than nothing. */
    public function number(string $field, bool $isRequired = false, float $most = 1_000_000): ?float
    {
        $given = str_replace(',', '.', $this->text($field, $isRequired));
        if ($given === '') {
            return null;
        }
        if (!is_numeric($given) || $given < 0 || $given > $most) {
            $this->refuse($field, 'form.problem.number', ['{most}' => number_format($most)]);

            return null;
        }

        return (float) $given;
    }

    /**
     * A weight: "5 lb 3 oz", "2.3 kg", or a number of the unit in the field "…_unit".
     *
     * @param int|null $known the stored weight; kept if the same pounds are typed, which show less than a gram
     *
     * @return int|null grams, rounded down so that nothing counts as heavier than it is
     */
    public function grams(string $field, bool $isRequired = false, ?int $known = null): ?int
    {
        $weight = $this->measure($field, WeightUnit::GRAMS_IN, 'kg', 'form.problem.weight', $isRequired);
        if ($weight === null) {
            return null;
        }
        $isInPounds = preg_match('/lb|oz/i', $this->typed->getString($field)) === 1;
        if ($known !== null && $isInPounds && abs($weight - $known) <= self::SHOWN_WITHIN) {
            return $known;
        }
        $grams = (int) floor(round($weight, 6));
        if ($grams < 1 || $grams > 1_000_000_000) {
            $this->refuse($field, 'form.problem.weight');

            return null;
        }

        return $grams;
    }

    /**
     * A length: "2 in", "1 1/2 in", "5 cm", or a number of the unit in the field "…_unit".
     *
     * @param string $key of the problem where it is less or more
     *
     * @return float|null millimeters
     */
    public function millimeters(
        string $field,
        float $least,
        float $most,
        string $key,
        bool $isRequired = false,
    ): ?float {
        $length = $this->measure($field, LengthUnit::MILLIMETERS_IN, 'cm', 'form.problem.size', $isRequired);
        if ($length !== null && ($length < $least || $length > $most)) {
            $this->refuse($field, $key);

            return null;
        }

        return $length;
    }

    /**
     * The pressure of the air: "29.9 inHg", "1013 hPa", or a number of the unit in the field "…_unit".
     *
     * @return int|null hectopascals, from 500 to 1080
     */
    public function pressure(string $field): ?int
    {
        $pressure = $this->measure($field, PressureUnit::HECTOPASCALS_IN, 'hpa', 'form.problem.pressure', false);
        if ($pressure !== null && ($pressure < 500 || $pressure > 1080)) {
            $this->refuse($field, 'form.problem.pressure');

            return null;
        }

        return $pressure === null ? null : (int) round($pressure);
    }

    /**
     * @param array<string, float> $units how much each is, by its name in small letters
     * @param string $problem key of the message for an invalid measure
     *
     * @return float|null null for an empty or invalid field
     */
    private function measure(string $field, array $units, string $usual, string $problem, bool $isRequired): ?float
    {
        $given = strtr($this->text($field, $isRequired), ['½' => ' 1/2', '¼' => ' 1/4', '¾' => ' 3/4', '″' => '"']);
        $names = implode('|', array_keys($units));
        $said = '/\G\s*('.self::AMOUNT.')\s*('.$names.')s?(?![a-z])\.?/i';
        $isSaid = preg_match_all($said, $given, $parts, \PREG_SET_ORDER) > 0;
        if ($isSaid && implode('', array_column($parts, 0)) === $given) {
            return array_sum(
                array_map(
                    static fn (array $part): float => self::amount($part[1]) * $units[strtolower($part[2])],
                    $parts,
                ),
            );
        }
        if (preg_match('/^\s*('.self::AMOUNT.')$/D', $given, $part) === 1) {
            $unit = strtolower($this->typed->getString($field.'_unit', $usual));

            return self::amount($part[1]) * ($units[$unit] ?? $units[$usual]);
        }
        if ($given !== '') {
            $this->refuse($field, $problem);
        }

        return null;
    }

    /** "2.5", "2,5", "2 1/2", "1/2". */
    private static function amount(string $given): float
    {
        preg_match('/^([\d.,]+(?!\/))?\s*(?:(\d+)\/(\d+))?$/D', $given, $part);
        $whole = (float) str_replace(',', '.', $part[1] ?? '');

        return $whole + (isset($part[3]) ? (int) $part[2] / (int) $part[3] : 0.0);
    }

    /**
     * A length of time as people write it: "90" or "90 min" for minutes, "1:30", "1 h 30", "12 h", "2 d 4 h".
     *
     * @return int|null minutes
     */
    public function minutes(string $field, int $most): ?int
    {
        $given = mb_strtolower($this->text($field));
        if ($given === '') {
            return null;
        }
        $minutes = match (true) {
            preg_match('/^(\d{1,3}):([0-5]\d)$/D', $given, $part) === 1 => 60 * (int) $part[1] + (int) $part[2],
            preg_match(self::LENGTH, $given, $part) === 1 => 60 * (24 * (int) ($part[1] ?? 0) + (int) ($part[2] ?? 0))
                + (int) ($part[3] ?? 0),
            default => null,
        };
        if ($minutes === null || $minutes > $most) {
            $this->refuse($field, 'form.problem.length', ['{most}' => (string) intdiv($most, 60)]);

            return null;
        }

        return $minutes;
    }

    /**
     * A time of day: "18:00", "6:00 pm", "6 pm".
     *
     * @param string $key of the problem where it is none
     *
     * @return string|null "18:00"
     */
    public function timeOfDay(string $field, string $key): ?string
    {
        $given = $this->text($field, true);
        $isTime = preg_match('/^(\d{1,2})(?:[:.]([0-5]\d))?(?:\s*([ap])\.?m\.?)?$/iD', $given, $part) === 1;
        $hour = (int) ($part[1] ?? 0);
        $half = strtolower($part[3] ?? '');
        $isTime = $isTime && ($half === '' ? ($part[2] ?? '') !== '' && $hour < 24 : $hour >= 1 && $hour <= 12);
        if (!$isTime) {
            $this->refuse($field, $given === '' ? 'form.problem.required' : $key);

            return null;
        }
        $hour = $half === '' ? $hour : $hour % 12 + ($half === 'p' ? 12 : 0);

        return \sprintf('%02d:%02d', $hour, (int) ($part[2] ?? 0));
    }

    /**
     * A day, with a time as the kitchen writes it in the field "…_time": both, or neither. A moment that is sent whole
     * stays as it is.
     *
     * @return string "2026-12-05T18:30"; '' for an empty or refused field
     */
    public function wallMinute(string $field, bool $isRequired = false): string
    {
        $time = $this->text($field.'_time');
        $day = $this->text($field, $isRequired || $time !== '');
        if (preg_match('/^\d{4}-\d\d-\d\d$/D', $day) !== 1) {
            return $day;
        }
        $time = $this->timeOfDay($field.'_time', 'form.problem.time');

        return $time === null ? '' : $day.'T'.$time;
    }

    /** @return int|null hundredths of the site's money */
    public function cents(string $field): ?int
    {
        $number = $this->number($field);

        return $number === null ? null : (int) round(100 * $number);
    }

    public function temperature(string $field, TemperatureUnit $unit, bool $isRequired = false): ?Temperature
    {
        $given = $this->text($field, $isRequired);
        if ($given === '') {
            return null;
        }
        try {
            return Temperature::parse($given, $unit);
        } catch (MalformedTemperature) {
            $this->refuse($field, 'form.problem.temp');

            return null;
        }
    }

    /**
     * @template T of \BackedEnum
     *
     * @param class-string<T> $values
     *
     * @return T|null
     */
    public function choice(string $field, string $values, bool $isRequired = false): ?\BackedEnum
    {
        $given = $this->text($field, $isRequired);
        $value = $given === '' ? null : $values::tryFrom($given);
        if ($given !== '' && $value === null) {
            $this->refuse($field, 'form.problem.choice');
        }

        return $value;
    }

    /**
     * Parses a field with the given function; its problem becomes the field's.
     *
     * @template T
     *
     * @param \Closure(string): T $read
     *
     * @return T|null
     */
    public function read(string $field, \Closure $read): mixed
    {
        $given = $this->text($field);
        try {
            return $read($given);
        } catch (Problem $problem) {
            $this->refuse($field, $problem->key, $problem->values);

            return null;
        }
    }

    /** @return string|null a day, 2026-11-25 */
    public function day(string $field): ?string
    {
        $given = $this->text($field);
        if ($given === '') {
            return null;
        }
        if (
            preg_match('/^(\d{4})-(\d\d)-(\d\d)$/D', $given, $part) !== 1
            || !checkdate((int) $part[2], (int) $part[3], (int) $part[1])
        ) {
            $this->refuse($field, 'form.problem.day');

            return null;
        }

        return $given;
    }

    public function isOn(string $field): bool
    {
        return $this->typed->getBoolean($field);
    }

    /** @return array<string, string> */
    private static function texts(ParameterBag $sent): array
    {
        $texts = [];
        foreach ($sent->all() as $field => $value) {
            if (\is_string($value)) {
                $texts[(string) $field] = $value;
            }
        }

        return $texts;
    }
}
