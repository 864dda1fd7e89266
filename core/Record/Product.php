<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

use Verjuicer\Core\Food\Animal;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\Integrity;
use Verjuicer\Core\Measure\Weight;

/** What is being smoked, as far as the rules ask. */
final readonly class Product
{
    /** @param array<string, mixed> $unknown members of the format we do not know: kept, ignored */
    public function __construct(
        public ?string $name,
        public Animal $animal,
        public Form $form,
        public Integrity $integrity,
        public ?Weight $rawWeight,
        public int $pieces,
        public bool $stuffed,
        public bool $wild,
        public bool $advisory,
        public array $unknown = [],
    ) {
    }
}
