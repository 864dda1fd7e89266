<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/**
 * One subject of a rule set: its numbers, typed and cited. It reads itself from the member of the file that has its
 * key.
 */
interface RulePart
{
    public static function key(): string;

    /** What is wrong or missing becomes a problem of the file; what is read then is of no use and never seen. */
    public static function read(RuleFields $fields): self;
}
