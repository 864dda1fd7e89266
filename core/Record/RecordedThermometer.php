<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

/** A thermometer and its checks, in the order they were recorded. */
final readonly class RecordedThermometer
{
    /**
     * @param list<ThermometerCheck> $checks
     * @param array<string, mixed> $extensions unknown members: kept, ignored
     */
    public function __construct(public string $id, public array $checks, public array $extensions = [])
    {
    }
}
