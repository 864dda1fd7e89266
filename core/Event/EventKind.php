<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event;

/**
 * Declares a kind of event, on the class that holds its details. Its fields are the parameters of the constructor;
 * reader, writer, schema, forms, the log line, texts and tables follow from them.
 */
#[\Attribute(\Attribute::TARGET_CLASS)]
final readonly class EventKind
{
    /**
     * @param string $name as in the open format
     * @param list<LinePhrase> $sayings how it is said in the log line
     * @param array<string, int> $offered stages it is offered after, with its place in the list; '' is before the first
     *     stage
     * @param list<QuickAction> $taps actions of a single tap
     * @param bool $isMarked whether a picture marks it at its foot
     * @param bool $partsWays whether a piece it is said of goes its own way from then on, as with every kind that
     *     begins a stage
     */
    public function __construct(
        public string $name,
        public array $sayings = [],
        public array $offered = [],
        public array $taps = [],
        public bool $isMarked = false,
        public bool $partsWays = false,
    ) {
    }
}
