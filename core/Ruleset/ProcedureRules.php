<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Food\ProcedureKind;

/** Which procedures a code asks for in writing, each with its section. A code that says nothing of it asks for none. */
final readonly class ProcedureRules implements RulePart
{
    /** @param array<string, string> $citations by the kind of the procedure */
    private function __construct(private array $citations)
    {
    }

    public static function key(): string
    {
        return 'procedures';
    }

    public static function none(): self
    {
        return new self([]);
    }

    public static function read(RuleFields $fields): self
    {
        $citations = [];
        foreach (ProcedureKind::cases() as $kind) {
            if ($fields->has($kind->value)) {
                $citations[$kind->value] = $fields->part($kind->value)->citation();
            }
        }

        return new self($citations);
    }

    /** @return string|null null where the code asks for no such procedure */
    public function citation(ProcedureKind $kind): ?string
    {
        return $this->citations[$kind->value] ?? null;
    }
}
