<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Input;
use Verjuicer\Core\Event\Says;
use Verjuicer\Core\Food\Feel;
use Verjuicer\Core\Measure\Temperature;

/** The temperature of the meat at one spot of one piece. */
#[EventKind('reading')]
final readonly class Reading implements Detail
{
    /** The spot of what is one mass, pulled or chopped. */
    public const PAN = 'pan';

    public function __construct(
        public Temperature $temp,
        #[Says(most: 500)] public int $piece = 1,
        public string $spot = 'core',
        #[Says(input: Input::Listed)] public ?string $thermometer = null,
        #[Says(isOurs: true)] public ?Feel $feel = null,
        #[Says(isOurs: true, input: Input::Carried)] public bool $logger = false,
    ) {
    }
}
