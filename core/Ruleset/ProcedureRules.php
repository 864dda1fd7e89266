<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Food\ProcedureKind;
use Verjuicer\Core\Measure\Span;

/** Which procedures a code asks for in writing, each with its section. A code that says nothing of it asks for none. */
final readonly class ProcedureRules implements RulePart
{
    /**
     * @param array<string, string> $citations by the kind of the procedure
     * @param Span|null $firstHeating of meat that is cooked through later, at the most
     * @param string $planCitation contents of a plan for a variance; '' if the code has none
     */
    private function __construct(
        private array $citations,
        public ?Span $firstHeating = null,
        public string $planCitation = '',
    ) {
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

        $break = $fields->has('non_continuous') ? $fields->part('non_continuous') : null;
        $variance = $fields->has('preserving') ? $fields->part('preserving') : null;

        return new self(
            $citations,
            $break?->has('seconds') === true ? $break->span('seconds') : null,
            $variance?->has('plan') === true ? $variance->text('plan') : '',
        );
    }

    /** @return string|null null where the code asks for no such procedure */
    public function citation(ProcedureKind $kind): ?string
    {
        return $this->citations[$kind->value] ?? null;
    }
}
