<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldInput;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Food\Feel;
use Verjuicer\Core\Measure\Temperature;

/** The temperature of the meat at one spot of one piece. */
#[EventKind('reading')]
final readonly class Reading implements Detail
{
    /** The spot of one mass, pulled or chopped. */
    public const PAN = 'pan';

    public function __construct(
        public Temperature $temp,
        #[FieldOptions(most: 500)] public int $piece = 1,
        public string $spot = 'core',
        #[FieldOptions(input: FieldInput::Listed)] public ?string $thermometer = null,
        #[FieldOptions(isOurs: true)] public ?Feel $feel = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public bool $logger = false,
    ) {
    }
}
