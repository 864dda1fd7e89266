<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Event\CarriesSurfaceInside;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Ruleset\CookingCategory;
use Verjuicer\Core\Ruleset\CookingRule;
use Verjuicer\Core\Ruleset\CookingRules;

/** What the law asks of a batch as it stands, and why it asks more than of the product as it came. */
final readonly class Requirement
{
    /** @param Instant|null $piercedAt when a needle or blade first went in */
    private function __construct(public CookingRule $rule, public ?Instant $piercedAt, public bool $isPoultryLike)
    {
    }

    public static function of(Assessment $assessment): ?self
    {
        $product = $assessment->record->product;
        $piercedAt = null;
        foreach ($assessment->timeline->events as $event) {
            $piercedAt ??= $event->detail instanceof CarriesSurfaceInside ? $event->at : null;
        }
        $isPoultryLike = $product->stuffed || $product->wild;
        $isPierced = $piercedAt !== null;
        $category = CookingCategory::of(
            $product->animal,
            $product->form,
            $product->integrity,
            $isPoultryLike,
            $isPierced,
        );

        return $category === null
            ? null
            : new self(
                $assessment->rules->get(CookingRules::class)->of($category),
                $category === CookingCategory::NonIntact ? $piercedAt : null,
                $isPoultryLike && !$product->animal->isPoultry(),
            );
    }
}
