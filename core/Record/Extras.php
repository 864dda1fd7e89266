<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Json\Problems;
use Verjuicer\Core\Measure\Temperature;

/**
 * Members of an event beyond the format's own, which every reader keeps and ignores. What is not of the shape asked for is as good as absent:
 * they decide no verdict, so a stranger's member of the same name is no fault.
 */
final readonly class Extras
{
    public function __construct(private Event $event)
    {
    }

    public function text(string $name): ?string
    {
        $value = $this->event->unknown[$name] ?? null;

        return \is_string($value) && $value !== '' ? $value : null;
    }

    /** Kilograms, in whole grams; null where it is no weight. */
    public function grams(string $name): ?int
    {
        $value = $this->event->unknown[$name] ?? null;

        return (\is_int($value) || \is_float($value)) && $value >= 0 && $value < 1_000_000 ? (int) round($value * 1000) : null;
    }

    public function whole(string $name): ?int
    {
        $value = $this->event->unknown[$name] ?? null;

        return \is_int($value) ? $value : null;
    }

    public function temperature(string $name): ?Temperature
    {
        $value = $this->event->unknown[$name] ?? null;

        return $value instanceof \stdClass ? (new Fields((object) [$name => $value], null, '', new Problems()))->temperature($name) : null;
    }

    /** @return list<string> */
    public function texts(string $name): array
    {
        $value = $this->event->unknown[$name] ?? null;

        return \is_array($value) ? array_values(array_filter($value, \is_string(...))) : [];
    }
}
