<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/** The rule sets in a folder, each read when it is first asked for. */
final class RuleSetLibrary
{
    /** @var array<string, RuleSet> */
    private array $read = [];

    /** @var list<string>|null */
    private ?array $ids = null;

    public function __construct(private readonly string $folder)
    {
    }

    /** @return list<string> */
    public function ids(): array
    {
        if ($this->ids === null) {
            $files = glob($this->folder.'/*.json');
            $ids = array_map(
                static fn (string $file): string => basename($file, '.json'),
                $files === false ? [] : $files,
            );
            $this->ids = array_values(array_diff($ids, ['schema']));
        }

        return $this->ids;
    }

    public function has(string $id): bool
    {
        return \in_array($id, $this->ids(), true);
    }

    /** @throws RuleSetProblem if there is none of this id, or its file is not valid */
    public function get(string $id): RuleSet
    {
        if (!isset($this->read[$id])) {
            if (!$this->has($id)) {
                throw RuleSetProblem::unknown($id, $this->ids());
            }
            $this->read[$id] = RuleSetReader::read($this->folder.'/'.$id.'.json');
        }

        return $this->read[$id];
    }
}
