<?php

declare(strict_types=1);

namespace Verjuicer\Core\Json;

/** Collects every problem of one document, so that all of them can be mended in one go. */
final class Problems
{
    /** @var list<Problem> */
    private array $found = [];

    public function add(string $pointer, string $message): void
    {
        $this->found[] = new Problem($pointer, $message);
    }

    /** @return list<Problem> */
    public function all(): array
    {
        return $this->found;
    }
}
