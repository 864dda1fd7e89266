<?php

declare(strict_types=1);

namespace Verjuicer\Core\Json;

/** Collects every problem of one document, so that all of them can be mended in one go. */
final class DocumentProblems
{
    /** @var list<DocumentProblem> */
    private array $found = [];

    public function add(string $pointer, string $message): void
    {
        $this->found[] = new DocumentProblem($pointer, $message);
    }

    /** @return list<DocumentProblem> */
    public function all(): array
    {
        return $this->found;
    }
}
