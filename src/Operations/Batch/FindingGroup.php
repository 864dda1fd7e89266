<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Verjuicer\Core\Assess\Finding\Finding;

/** What the record shows of one rule, with one verdict: of one place or of several. */
final readonly class FindingGroup
{
    /** @param non-empty-list<Finding> $findings in their order */
    private function __construct(public string $rule, public string $verdict, public array $findings)
    {
    }

    /**
     * @param list<Finding> $findings in their order
     *
     * @return list<self> each where its first stood
     */
    public static function all(array $findings): array
    {
        $groups = [];
        foreach ($findings as $finding) {
            $verdict = $finding->verdict->value ?? 'caution';
            $groups["$finding->rule $verdict $finding->citation ".(int) $finding->isUnderAdvisory][] = $finding;
        }

        return array_values(
            array_map(
                static fn (array $of): self => new self($of[0]->rule, $of[0]->verdict->value ?? 'caution', $of),
                $groups,
            ),
        );
    }

    public function first(): Finding
    {
        return $this->findings[0];
    }

    public function isOfSeveral(): bool
    {
        return \count($this->findings) > 1;
    }

    /** Whether nothing is left to do about it: then its places are folded. */
    public function isSettled(): bool
    {
        return \in_array($this->verdict, ['met', 'stopped'], true);
    }

    /** @return list<string> the tracks it is about */
    public function tracks(): array
    {
        return array_values(
            array_unique(
                array_filter(
                    array_map(static fn (Finding $one): ?string => $one->track, $this->findings),
                    static fn (?string $track): bool => $track !== null,
                ),
            ),
        );
    }
}
