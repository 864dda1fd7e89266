<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Settings;

use Verjuicer\App\Platform\Wording\ClockFace;
use Verjuicer\App\Platform\Wording\Language;
use Verjuicer\App\Platform\Wording\LengthUnit;
use Verjuicer\App\Platform\Wording\WeightUnit;
use Verjuicer\App\Site\Site\AllergenList;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\TemperatureUnit;

/**
 * The settings of a site as they are recorded, by name.
 *
 * @phpstan-type Values array{name: string, address: string, permit: string, timezone: string, elevation_m: int|null,
 *     opens_at: string, closes_at: string, unit: string, weight_unit: string, length_unit: string, clock: string,
 *     language: string,
 *     rule_set: string, allergen_list: string, advisory: bool, susceptible: bool, second_factor: bool,
 *     keep_months: int, keep_basis: string, seal_mail: string, signs_from: string, second_signature: bool,
 *     house_limits: array<string, int>}
 */
final readonly class SiteValues
{
    /** Settings that records contain or are judged by. */
    public const JUDGED = ['name', 'timezone', 'elevation_m', 'unit', 'rule_set', 'house_limits'];

    /** @return Values */
    public static function of(Site $site): array
    {
        $limits = $site->houseLimits;
        ksort($limits); // the database keeps them in an order of its own

        return [
            'name' => $site->name,
            'address' => $site->address,
            'permit' => $site->permit,
            'timezone' => $site->timezone,
            'elevation_m' => $site->elevationM,
            'opens_at' => $site->opensAt,
            'closes_at' => $site->closesAt,
            'unit' => $site->unit->value,
            'weight_unit' => $site->weightUnit->value,
            'length_unit' => $site->lengthUnit->value,
            'clock' => $site->clock->value,
            'language' => $site->language->value,
            'rule_set' => $site->nextRuleSet ?? $site->ruleSet,
            'allergen_list' => $site->allergenList->value,
            'advisory' => $site->hasAdvisory,
            'susceptible' => $site->isSusceptible,
            'second_factor' => $site->asksSecondFactor,
            'keep_months' => $site->keepMonths,
            'keep_basis' => $site->keepBasis,
            'seal_mail' => $site->sealMail,
            'signs_from' => $site->signsFrom,
            'second_signature' => $site->asksSecondSignature,
            'house_limits' => $limits,
        ];
    }

    /** @param Values $values all but the rule set, which comes into force at a moment of its own */
    public static function set(Site $site, array $values): void
    {
        $site->name = $values['name'];
        $site->address = $values['address'];
        $site->permit = $values['permit'];
        $site->timezone = $values['timezone'];
        $site->elevationM = $values['elevation_m'];
        $site->opensAt = $values['opens_at'];
        $site->closesAt = $values['closes_at'];
        $site->unit = TemperatureUnit::from($values['unit']);
        $site->weightUnit = WeightUnit::from($values['weight_unit']);
        $site->lengthUnit = LengthUnit::from($values['length_unit']);
        $site->clock = ClockFace::from($values['clock']);
        $site->language = Language::from($values['language']);
        $site->allergenList = AllergenList::from($values['allergen_list']);
        $site->hasAdvisory = $values['advisory'];
        $site->isSusceptible = $values['susceptible'];
        $site->asksSecondFactor = $values['second_factor'];
        $site->keepMonths = $values['keep_months'];
        $site->keepBasis = $values['keep_basis'];
        $site->sealMail = $values['seal_mail'];
        $site->signsFrom = $values['signs_from'];
        $site->asksSecondSignature = $values['second_signature'];
        $site->houseLimits = $values['house_limits'];
    }
}
