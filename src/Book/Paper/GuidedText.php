<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Paper;

use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Catalogue\Recipe\Recipes;
use Verjuicer\App\Platform\Wording\Figures;
use Verjuicer\App\Site\Settings\SiteRules;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Food\ProcedureKind;
use Verjuicer\Core\Food\TimePlan;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Ruleset\CoolingRules;
use Verjuicer\Core\Ruleset\DateMarkRules;
use Verjuicer\Core\Ruleset\ProcedureRules;
use Verjuicer\Core\Ruleset\ReheatingRules;
use Verjuicer\Core\Ruleset\ThermometerRules;
use Verjuicer\Core\Ruleset\TimeControlRules;
use Verjuicer\Core\Ruleset\VacuumPackRules;

/**
 * A text to begin a procedure with: the limits are those of the rule set in force and of the site's settings. Somebody
 * of the kitchen makes it theirs; it never says that anybody approved it.
 */
final readonly class GuidedText
{
    public function __construct(
        private TranslatorInterface $translator,
        private SiteRules $rules,
        private Figures $figures,
        private Products $products,
        private Pits $pits,
        private Recipes $recipes,
    ) {
    }

    public function of(Site $site, ProcedureKind $kind): string
    {
        return trim($this->translator->trans($kind->value, $this->values($site, $kind), 'papers'));
    }

    /** What a procedure is called where nobody calls it otherwise. */
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
            '{tolerance}' => $rules->get(ThermometerRules::class)->tolerance->citation,
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

    /** @return list<string> what goes in by the weights of each recipe that holds any */
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
