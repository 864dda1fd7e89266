<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Zone;

/** Facts for spans that lie within one stage and not at its very first second. */
final readonly class IsolatedStage
{
    /**
     * @param int $from seconds since 1970; a span begins after it
     * @param int $to a span ends no later
     */
    public function __construct(public int $from, public int $to, public bool $isKept, public bool $isHot)
    {
    }
}
