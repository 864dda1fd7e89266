<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Batch;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Ruleset\CookingCategory;
use Verjuicer\Core\Ruleset\CookingRule;

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
            if ($event->type->carriesSurfaceInside()) {
                $piercedAt = $event->at;
                break;
            }
        }
        $isPoultryLike = $product->stuffed || $product->wild;
        $category = CookingCategory::of($product->animal, $product->form, $product->integrity, $isPoultryLike, $piercedAt !== null);

        return $category === null ? null : new self($assessment->rules->cooking($category), $category === CookingCategory::NonIntact ? $piercedAt : null, $isPoultryLike && !$product->animal->isPoultry());
    }
}
