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

    /** A wrong or missing member becomes a problem of the file, and its placeholder is never used. */
    public static function read(RuleFields $fields): self;
}
