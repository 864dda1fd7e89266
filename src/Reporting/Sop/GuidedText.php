<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Sop;

use Doctrine\DBAL\Connection;
use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Catalogue\Recipe\Recipe;
use Verjuicer\App\Catalogue\Recipe\Recipes;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Site\Settings\SiteRules;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Food\ProcedureKind;
use Verjuicer\Core\Food\TimePlan;
use Verjuicer\Core\Forecast\RemedyKind;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Ruleset\CookingCategory;
use Verjuicer\Core\Ruleset\CookingRules;
use Verjuicer\Core\Ruleset\CoolingRules;
use Verjuicer\Core\Ruleset\DateMarkRules;
use Verjuicer\Core\Ruleset\ProcedureRules;
use Verjuicer\Core\Ruleset\ReheatingRules;
use Verjuicer\Core\Ruleset\RuleSet;
use Verjuicer\Core\Ruleset\ThermometerRules;
use Verjuicer\Core\Ruleset\TimeControlRules;
use Verjuicer\Core\Ruleset\VacuumPackRules;
use Verjuicer\Core\Thermal\BoilingPoint;

/**
 * A draft of a procedure: its limits are those of the rule set in force and of the site's settings. The kitchen adapts
 * it; it never claims an approval.
 */
final readonly class GuidedText
{
    public function __construct(
        private TranslatorInterface $translator,
        private SiteRules $rules,
        private MeasureFormatter $figures,
        private Products $products,
        private Pits $pits,
        private Recipes $recipes,
        private Connection $connection,
    ) {
    }

    public function of(Site $site, ProcedureKind $kind): string
    {
        $values = $this->values($site, $kind);
        if ($kind === ProcedureKind::Preserving) {
            $values['{plans}'] = implode("\n\n", $this->plans($site, $values));
        }

        return trim($this->translator->trans($kind->value, $values, 'papers'));
    }

    /**
     * A HACCP plan for each product that needs one.
     *
     * @param array<string, string> $values
     *
     * @return non-empty-list<string>
     */
    private function plans(Site $site, array $values): array
    {
        $plans = [];
        foreach ($this->products->of($site) as $product) {
            if ($product->treatments === []) {
                continue;
            }
            $treatments = array_map(
                fn (string $one): string => $this->translator->trans('product.treatment.'.$one),
                $product->treatments,
            );
            $plans[] = trim($this->translator->trans('preserving_product', [
                '{product}' => $product->name,
                '{treatments}' => implode(', ', $treatments),
                '{cook}' => $this->cook($site, $product),
            ] + $values, 'papers'));
        }

        return $plans === [] ? [trim($this->translator->trans('preserving_none', $values, 'papers'))] : $plans;
    }

    /** The hottest row of the code for the cook of a product, with its time: the lower ones ask for more than that. */
    private function cook(Site $site, Product $product): string
    {
        $category = CookingCategory::of($product->animal, $product->form, $product->integrity, false, false);
        $rows = $category === null
            ? []
            : $this->rules->of($site)->get(CookingRules::class)->of($category)->rows;
        $last = $rows[\count($rows) - 1] ?? null;

        return $last === null
            ? '_______'
            : $this->translator->trans($last->dwell->seconds > 0 ? 'packet.row' : 'packet.row_at_once', [
                '{temp}' => $this->figures->threshold($last->temperature, $site->unit),
                '{time}' => $this->figures->span($last->dwell),
            ]);
    }

    /** The default title of a procedure. */
    public static function number(ProcedureKind $kind): string
    {
        return 'P-'.(1 + (int) array_search($kind, ProcedureKind::cases(), true));
    }

    /** @return array<string, string> */
    private function values(Site $site, ProcedureKind $kind): array
    {
        $rules = $this->rules->of($site);
        $limits = $rules->limits();
        $cooling = $rules->get(CoolingRules::class);
        $reheating = $rules->get(ReheatingRules::class);
        $time = $rules->get(TimeControlRules::class);
        $house = $rules->house();
        $papers = $rules->get(ProcedureRules::class);
        $limit = fn (Threshold $one): string => $this->figures->threshold($one, $site->unit);
        $preserved = array_filter(
            $this->products->of($site),
            static fn (Product $one): bool => $one->treatments !== [],
        );

        return [
            '{site}' => $site->name,
            '{code}' => $rules->title,
            '{citation}' => $papers->citation($kind) ?? $house->citation,
            '{cold}' => $limit($limits->cold->threshold),
            '{hot}' => $limit($limits->hot->threshold),
            '{middle}' => $limit($cooling->middle->threshold),
            '{stage1}' => $this->figures->span($cooling->stage1->span),
            '{total}' => $this->figures->span($cooling->total->span),
            '{reheat}' => $limit($reheating->own->threshold),
            '{reheat_within}' => $this->figures->span($reheating->within->span),
            '{hot_hours}' => $this->figures->span($time->limitOf(TimePlan::Hot4h)->span),
            '{cold_hours}' => $this->figures->span($time->limitOf(TimePlan::Cold6h)->span),
            '{ceiling}' => $limit($time->coldCeiling->threshold),
            '{first}' => $papers->firstHeating === null ? '–' : $this->figures->span($papers->firstHeating),
            '{plan}' => $papers->planCitation,
            '{tolerance}' => $this->tolerance($site, $rules),
            '{tolerance_citation}' => $rules->get(ThermometerRules::class)->tolerance->citation,
            '{ice}' => $this->figures->temperature(self::melting($site->unit)),
            '{boiling}' => $this->figures->temperature(BoilingPoint::atElevation($site->elevationM ?? 0, $site->unit)),
            '{below}' => $this->figures->span($house->belowHot),
            '{section}' => preg_replace('/\(.*$/', '', $papers->citation($kind) ?? '') ?? '',
            '{limit_citation}' => $rules->get(VacuumPackRules::class)->within->citation,
            '{thin}' => $this->figures->lengthLimit(1000 * RemedyKind::THIN),
            '{foods}' => '_______',
            '{suppliers}' => self::listed($this->suppliers($site)),
            '{recipes}' => self::listed($this->cures($site)),
            '{cooling_action}' => $this->translator->trans('packet.cooling_action'),
            '{vacuum}' => $this->figures->span($rules->get(VacuumPackRules::class)->within->span),
            '{days}' => (string) $rules->get(DateMarkRules::class)->days,
            '{checks}' => $this->figures->span($house->hotHoldCheck),
            '{thermometer}' => $this->figures->span($house->thermometerCheck),
            '{months}' => (string) $site->keepMonths,
            '{pits}' => self::listed(array_map(static fn ($one): string => $one->name, $this->pits->of($site))),
            '{nitrite}' => self::listed($this->nitrite($site)),
            '{products}' => self::listed(array_map(static fn (Product $one): string => $one->name, $preserved)),
        ];
    }

    private function tolerance(Site $site, RuleSet $rules): string
    {
        $of = $rules->get(ThermometerRules::class)->tolerance;

        return \sprintf('± %s °%s', $of->tenths($site->unit) / 10, $site->unit->value);
    }

    private static function melting(TemperatureUnit $unit): Temperature
    {
        return $unit === TemperatureUnit::Celsius ? Temperature::celsius('0') : Temperature::fahrenheit('32');
    }

    /** @return list<string> names */
    private function suppliers(Site $site): array
    {
        /** @var list<string> */
        return $this->connection->fetchFirstColumn(
            'SELECT name FROM supplier WHERE site_id = ? ORDER BY name',
            [$site->id->toRfc4122()],
        );
    }

    /** @return list<string> recipes that hold a cure */
    private function cures(Site $site): array
    {
        return array_values(
            array_map(
                fn (Recipe $one): string => $one->name.', '.$this->figures->dose($one->gramsPerKg),
                array_filter(
                    $this->recipes->of($site),
                    static fn (Recipe $one): bool => $one->nitritePpm() !== null,
                ),
            ),
        );
    }

    /** @return list<string> nitrite added by the weights of each recipe that contains any */
    private function nitrite(Site $site): array
    {
        $said = [];
        foreach ($this->recipes->of($site) as $recipe) {
            $ppm = $recipe->nitritePpm();
            if ($ppm !== null) {
                $said[] = \sprintf('%s %.1f ppm', $recipe->name, $ppm);
            }
        }

        return $said;
    }

    /** @param array<string> $names */
    private static function listed(array $names): string
    {
        return $names === [] ? '–' : implode(', ', $names);
    }
}
