<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

use Verjuicer\Core\Measure\Instant;

/** One batch with all that is needed to judge it. */
final readonly class Record
{
    /**
     * @param list<Thermometer>    $thermometers
     * @param list<Event>          $events         in the order of the record, which breaks ties
     * @param array<string, mixed> $unknown        members of the format we do not know: kept, ignored
     * @param array<string, mixed> $unknownOfBatch the same, of its batch
     */
    public function __construct(
        public Site $site,
        public string $rules,
        public ?Instant $asOf,
        public array $thermometers,
        public ?string $code,
        public Product $product,
        public array $events,
        public array $unknown = [],
        public array $unknownOfBatch = [],
    ) {
    }
}
