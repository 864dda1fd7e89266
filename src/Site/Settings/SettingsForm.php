<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Settings;

use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Wording\ClockFace;
use Verjuicer\App\Platform\Wording\Language;
use Verjuicer\App\Platform\Wording\LengthUnit;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Platform\Wording\UnitSystem;
use Verjuicer\App\Platform\Wording\WeightUnit;
use Verjuicer\App\Site\Site\AllergenList;
use Verjuicer\App\Site\Site\Organisation;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Site\WallTime;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\TimeZone;
use Verjuicer\Core\Measure\UnknownTimeZone;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/**
 * The form of a site's settings: its values, and reading them back.
 *
 * @phpstan-import-type Values from SiteValues
 */
final readonly class SettingsForm
{
    private const LOWEST_M = -430;
    private const HIGHEST_M = 5500;

    public function __construct(
        private SiteRules $rules,
        private RuleSetLibrary $library,
        private Now $now,
        private MeasureFormatter $figures,
    ) {
    }

    /** @return array<string, string> */
    public function filled(Site $site): array
    {
        $values = SiteValues::of($site);
        $filled = array_map(
            static fn (bool $is): string => $is ? '1' : '',
            array_filter($values, is_bool(...)),
        );
        foreach ($this->rules->usual($site)->adjustable() as $name => $usual) {
            $filled[$name] = (string) intdiv($values['house_limits'][$name] ?? $usual->seconds, 60);
        }
        unset($values['house_limits']);
        foreach (['opens_at', 'closes_at', 'signs_from'] as $time) {
            $filled[$time] = $this->figures->timeOfDay($values[$time]);
        }
        $filled['units'] = $filled['units_were'] = self::system($site)->value ?? '';
        if ($site->elevationM !== null) {
            $filled['elevation_m'] = $this->figures->elevation($site->elevationM);
        }

        return $filled + array_map(static fn (string|int|bool|null $value): string => (string) $value, $values);
    }

    /**
     * A new site: the settings asked before it exists.
     *
     * @return Site|null null with problems in the input
     */
    public function begun(FormInput $input, ?Organisation $organisation = null): ?Site
    {
        $name = $input->text('name', true, 100);
        $zone = $this->zone($input);
        $elevation = $this->elevation($input, null);
        $ruleSet = $this->ruleSet($input);
        $units = $this->units($input, null);
        $address = $input->text('address');
        if (!$input->isGood() || $zone === null) {
            return null;
        }
        $unit = TemperatureUnit::from($units['unit']);
        $site = new Site($name, $zone, $unit, $elevation, $ruleSet, $organisation);
        $site->weightUnit = WeightUnit::from($units['weight_unit']);
        $site->lengthUnit = LengthUnit::from($units['length_unit']);
        $site->clock = ClockFace::from($units['clock']);
        $site->language = $input->choice('language', Language::class) ?? Language::English;
        $site->address = $address;

        return $site;
    }

    /** @return RequestedSettings|null null with problems in the input */
    public function read(FormInput $input, Site $site): ?RequestedSettings
    {
        if ($input->isOn('advisory') && $input->isOn('susceptible')) {
            $input->refuse('form', 'site.problem.susceptible');
        }
        $values = $this->values($input, $site);
        $rulesFrom = $this->rulesFrom($input, $values['timezone']);
        $reason = $input->text('reason', $values !== SiteValues::of($site));

        return $input->isGood() ? new RequestedSettings($values, $rulesFrom, $reason) : null;
    }

    /** @return Values */
    private function values(FormInput $input, Site $site): array
    {
        return [
            'name' => $input->text('name', true, 100),
            'address' => $input->text('address'),
            'permit' => $input->text('permit', false, 60),
            'timezone' => $this->zone($input) ?? $site->timezone,
            'elevation_m' => $this->elevation($input, $site),
            'opens_at' => $input->timeOfDay('opens_at', 'site.problem.hour') ?? $site->opensAt,
            'closes_at' => $input->timeOfDay('closes_at', 'site.problem.hour') ?? $site->closesAt,
            ...$this->units($input, $site),
            'language' => ($input->choice('language', Language::class) ?? $site->language)->value,
            'rule_set' => $this->ruleSet($input),
            'allergen_list' => (
                $input->choice('allergen_list', AllergenList::class, true) ?? $site->allergenList
            )->value,
            'advisory' => $input->isOn('advisory'),
            'susceptible' => $input->isOn('susceptible'),
            'second_factor' => $input->isOn('second_factor'),
            'keep_months' => $input->whole('keep_months', 1, 240, true) ?? $site->keepMonths,
            'keep_basis' => $input->text('keep_basis'),
            'seal_mail' => self::addresses($input, 'seal_mail'),
            'signs_from' => $input->timeOfDay('signs_from', 'site.problem.hour') ?? $site->signsFrom,
            'second_signature' => $input->isOn('second_signature'),
            'house_limits' => $this->houseLimits($input, $site),
        ];
    }

    /**
     * A system of units that was not the chosen one before sets all of its parts; else each part is as it was chosen.
     *
     * @return array{unit: string, weight_unit: string, length_unit: string, clock: string}
     */
    private function units(FormInput $input, ?Site $site): array
    {
        $asked = $input->choice('units', UnitSystem::class);
        $system = $asked?->value === $input->typed->getString('units_were') ? null : $asked;
        $else = $asked ?? UnitSystem::UsCustomary;
        $unit = $system?->temperature() ?? $input->choice('unit', TemperatureUnit::class) ?? $site?->unit;
        $weight = $system?->weight() ?? $input->choice('weight_unit', WeightUnit::class) ?? $site?->weightUnit;
        $length = $system?->length() ?? $input->choice('length_unit', LengthUnit::class) ?? $site?->lengthUnit;
        $clock = $system?->clock() ?? $input->choice('clock', ClockFace::class) ?? $site?->clock;

        return [
            'unit' => ($unit ?? $else->temperature())->value,
            'weight_unit' => ($weight ?? $else->weight())->value,
            'length_unit' => ($length ?? $else->length())->value,
            'clock' => ($clock ?? $else->clock())->value,
        ];
    }

    private static function system(Site $site): ?UnitSystem
    {
        return UnitSystem::matching($site->unit, $site->weightUnit, $site->lengthUnit, $site->clock);
    }

    /** @return array<string, string> the unit fields of a new site's form */
    public static function unitsOf(Site|UnitSystem $from): array
    {
        $system = $from instanceof Site ? self::system($from) : $from;

        return [
            'units' => $system->value ?? '',
            'units_were' => $system->value ?? '',
            'unit' => ($from instanceof Site ? $from->unit : $from->temperature())->value,
            'weight_unit' => ($from instanceof Site ? $from->weightUnit : $from->weight())->value,
            'length_unit' => ($from instanceof Site ? $from->lengthUnit : $from->length())->value,
            'clock' => ($from instanceof Site ? $from->clock : $from->clock())->value,
        ];
    }

    /** @return array<string, int> seconds: those that are shorter than usual */
    private function houseLimits(FormInput $input, Site $site): array
    {
        $limits = [];
        foreach ($this->rules->usual($site)->adjustable() as $name => $usual) {
            $minutes = $input->whole($name, 1, intdiv($usual->seconds, 60));
            if ($minutes !== null && 60 * $minutes < $usual->seconds) {
                $limits[$name] = 60 * $minutes;
            }
        }
        ksort($limits);

        return $limits;
    }

    private function rulesFrom(FormInput $input, string $timezone): Instant
    {
        $now = $this->now->instant();
        $day = $input->day('rules_from');
        $from = $day === null ? null : WallTime::parse("$day 00:00", TimeZone::named($timezone), $now);
        if ($from !== null && $now->isAfter($from->plus(Span::ofMinutes(24 * 60)))) {
            $input->refuse('rules_from', 'site.problem.rules_from');
        }

        return $from === null || $now->isAfter($from) ? $now : $from;
    }

    /**
     * "5,280 ft", "1610 m", or a number of the unit shown with the field.
     *
     * @param Site|null $site its elevation stays where it is typed as it was shown
     *
     * @return int|null meters
     */
    private function elevation(FormInput $input, ?Site $site): ?int
    {
        $given = $input->text('elevation_m');
        if ($given === '') {
            return null;
        }
        if ($site?->elevationM !== null && $given === $this->figures->elevation($site->elevationM)) {
            return $site->elevationM;
        }
        if (preg_match('/^([-−]?)(\d{1,5}|\d{1,2},\d{3})\s*(ft|feet|m|meters?)?$/Diu', $given, $part) === 1) {
            $number = (int) str_replace(',', '', $part[2]);
            $unit = ($part[3] ?? '') === '' ? $input->typed->getString('elevation_m_unit', 'm') : strtolower($part[3]);
            $meters = (int) round($number * LengthUnit::MILLIMETERS_IN[$unit[0] === 'f' ? 'ft' : 'm'] / 1000);
            $meters = $part[1] === '' ? $meters : -$meters;
            if ($meters >= self::LOWEST_M && $meters <= self::HIGHEST_M) {
                return $meters;
            }
        }
        $input->refuse('elevation_m', 'site.problem.elevation', [
            '{least}' => $this->figures->elevation(self::LOWEST_M),
            '{most}' => $this->figures->elevation(self::HIGHEST_M),
        ]);

        return null;
    }

    public function ruleSet(FormInput $input): string
    {
        $ruleSet = $input->text('rule_set', true);
        if ($ruleSet !== '' && !$this->library->has($ruleSet)) {
            $input->refuse('rule_set', 'form.problem.choice');
        }

        return $ruleSet;
    }

    public function zone(FormInput $input): ?string
    {
        $name = $input->text('timezone', true);
        try {
            return $name === '' ? null : TimeZone::parse($name)->name;
        } catch (UnknownTimeZone $problem) {
            $input->refuse('timezone', 'site.problem.zone', [
                '{given}' => mb_substr($name, 0, 40),
                '{nearest}' => implode(', ', \array_slice($problem->nearest, 0, 3)),
            ]);

            return null;
        }
    }

    /** @return string addresses parted by commas */
    private static function addresses(FormInput $input, string $field): string
    {
        $addresses = preg_split('/[\s,;]+/', $input->text($field), -1, \PREG_SPLIT_NO_EMPTY);
        $addresses = $addresses === false ? [] : $addresses;
        foreach ($addresses as $address) {
            if (filter_var($address, \FILTER_VALIDATE_EMAIL) === false) {
                $input->refuse($field, 'site.problem.mail');
            }
        }

        return implode(', ', $addresses);
    }
}
