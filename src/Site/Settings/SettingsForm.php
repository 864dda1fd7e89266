<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Settings;

use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Wording\ClockFace;
use Verjuicer\App\Platform\Wording\WeightUnit;
use Verjuicer\App\Site\Site\AllergenList;
use Verjuicer\App\Site\Site\Organisation;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Site\WallTime;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\UnknownZone;
use Verjuicer\Core\Measure\Zone;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/**
 * The form of a site's settings: what is filled in, and what is read out of it.
 *
 * @phpstan-import-type Values from SiteValues
 */
final readonly class SettingsForm
{
    private const LOWEST_M = -430;
    private const HIGHEST_M = 5500;
    private const METERS_IN_FOOT = 0.3048;

    public function __construct(private SiteRules $rules, private RuleSetLibrary $library, private Now $now)
    {
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

        return $filled + array_map(static fn (string|int|bool|null $value): string => (string) $value, $values);
    }

    /**
     * A site as it begins: what is asked before it is there.
     *
     * @return Site|null null where something of it cannot be: the input says what
     */
    public function begun(FormInput $input, ?Organisation $organisation = null): ?Site
    {
        $name = $input->text('name', true, 100);
        $zone = $this->zone($input);
        $elevation = $this->elevation($input);
        $ruleSet = $this->ruleSet($input);
        $unit = $input->choice('unit', TemperatureUnit::class, true);
        $weight = $input->choice('weight_unit', WeightUnit::class, true);
        $clock = $input->choice('clock', ClockFace::class, true);
        $address = $input->text('address');
        if (!$input->isGood() || $zone === null || $unit === null || $weight === null || $clock === null) {
            return null;
        }
        $site = new Site($name, $zone, $unit, $elevation, $ruleSet, $organisation);
        $site->weightUnit = $weight;
        $site->clock = $clock;
        $site->address = $address;

        return $site;
    }

    /** @return AskedSettings|null null where something of it cannot be: the input says what */
    public function read(FormInput $input, Site $site): ?AskedSettings
    {
        if ($input->isOn('advisory') && $input->isOn('susceptible')) {
            $input->refuse('form', 'site.problem.susceptible');
        }
        $values = $this->values($input, $site);
        $rulesFrom = $this->rulesFrom($input, $values['timezone']);
        $reason = $input->text('reason', $values !== SiteValues::of($site));

        return $input->isGood() ? new AskedSettings($values, $rulesFrom, $reason) : null;
    }

    /** @return Values */
    private function values(FormInput $input, Site $site): array
    {
        return [
            'name' => $input->text('name', true, 100),
            'address' => $input->text('address'),
            'permit' => $input->text('permit', false, 60),
            'timezone' => $this->zone($input) ?? $site->timezone,
            'elevation_m' => $this->elevation($input),
            'opens_at' => self::hour($input, 'opens_at'),
            'closes_at' => self::hour($input, 'closes_at'),
            'unit' => ($input->choice('unit', TemperatureUnit::class, true) ?? $site->unit)->value,
            'weight_unit' => ($input->choice('weight_unit', WeightUnit::class, true) ?? $site->weightUnit)->value,
            'clock' => ($input->choice('clock', ClockFace::class, true) ?? $site->clock)->value,
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
            'signs_from' => self::hour($input, 'signs_from'),
            'second_signature' => $input->isOn('second_signature'),
            'house_limits' => $this->houseLimits($input, $site),
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
        $from = $day === null ? null : WallTime::parse("$day 00:00", Zone::named($timezone), $now);
        if ($from !== null && $now->isAfter($from->plus(Span::ofMinutes(24 * 60)))) {
            $input->refuse('rules_from', 'site.problem.rules_from');
        }

        return $from === null || $now->isAfter($from) ? $now : $from;
    }

    /** @return int|null meters; "5280 ft" are taken, too */
    public function elevation(FormInput $input): ?int
    {
        $given = $input->text('elevation_m');
        if (preg_match('/^(-?\d{1,5})\s*(ft|m)?$/Di', $given, $part) === 1) {
            $isFeet = strtolower($part[2] ?? '') === 'ft';
            $meters = $isFeet ? (int) round(self::METERS_IN_FOOT * (int) $part[1]) : (int) $part[1];
            if ($meters >= self::LOWEST_M && $meters <= self::HIGHEST_M) {
                return $meters;
            }
        }
        if ($given !== '') {
            $input->refuse('elevation_m', 'site.problem.elevation', [
                '{least}' => (string) self::LOWEST_M,
                '{most}' => (string) self::HIGHEST_M,
            ]);
        }

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
            return $name === '' ? null : Zone::parse($name)->name;
        } catch (UnknownZone $problem) {
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

    private static function hour(FormInput $input, string $field): string
    {
        $given = $input->text($field, true);
        if ($given !== '' && preg_match('/^([01]\d|2[0-3]):[0-5]\d$/D', $given) !== 1) {
            $input->refuse($field, 'site.problem.hour');
        }

        return $given;
    }
}
