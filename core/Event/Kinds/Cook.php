<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Input;
use Verjuicer\Core\Event\Saying;
use Verjuicer\Core\Event\Says;
use Verjuicer\Core\Food\CookWay;
use Verjuicer\Core\Food\Oven;
use Verjuicer\Core\Measure\Temperature;

/** Onto the heat: the oven and its set point, which open or close the low rows of the roast table. */
#[EventKind(
    'cook',
    sayings: [
        new Saying('cook', words: 'pit', number: 'set'),
        new Saying('sear', words: 'pit', number: 'set', sets: ['way' => 'sear']),
        new Saying('braise', words: 'pit', number: 'set', sets: ['way' => 'braise'], with: 'recipe'),
    ],
    offered: [
        '' => 30,
        'received' => 30,
        'thaw' => 30,
        'cold_hold' => 20,
        'freeze' => 20,
        'prep' => 10,
        'cook' => 20,
        'rest' => 40,
    ],
)]
final readonly class Cook implements BeginsStage
{
    /** @param list<string> $allergens keys of the lists of major allergens: of what it is braised in */
    public function __construct(
        public ?Oven $oven = null,
        public ?Temperature $set = null,
        #[Says(isOurs: true, input: Input::Listed)] public ?string $pit = null,
        #[Says(isOurs: true)] public ?CookWay $way = null,
        #[Says(isOurs: true, input: Input::Listed)] public ?string $recipe = null,
        #[Says(isOurs: true, input: Input::Carried)] public array $allergens = [],
    ) {
    }
}
