<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Json\DocumentProblems;
use Verjuicer\Core\Json\Fields;

/** Reads a rule set file. A wrong file stops the deploy, naming every fault; a complete RuleSet or none. */
final readonly class RuleSetReader
{
    /** @throws RuleSetProblem if the file is missing, not JSON, or lacks or misstates a number or a citation */
    public static function read(string $file): RuleSet
    {
        $json = is_file($file) ? file_get_contents($file) : false;
        if ($json === false) {
            throw RuleSetProblem::unreadable($file, 'there is no such file');
        }
        try {
            $data = json_decode($json, flags: \JSON_THROW_ON_ERROR);
        } catch (\JsonException $problem) {
            throw RuleSetProblem::unreadable($file, $problem->getMessage());
        }
        if (!$data instanceof \stdClass) {
            throw RuleSetProblem::unreadable($file, 'it is not a JSON object');
        }
        $problems = new DocumentProblems();
        $top = new RuleFields(new Fields($data, null, '', $problems), $problems, $file);
        if ($top->text('vocabulary') !== Vocabulary::ID) {
            $top->wrong('vocabulary', \sprintf('must be "%s"', Vocabulary::ID));
        }
        $parts = [];
        foreach (Vocabulary::PARTS as $part) {
            $parts[$part] = $part::read($top->part($part::key()));
        }
        foreach (Vocabulary::OPTIONAL as $part) {
            $parts[$part] = $top->has($part::key()) ? $part::read($top->part($part::key())) : $part::none();
        }
        $ruleSet = new RuleSet(
            $top->text('id'),
            $top->text('title'),
            $top->text('authority'),
            $top->text('edition'),
            $top->text('checked'),
            $parts,
        );
        $top->refuse();

        return $ruleSet;
    }
}
