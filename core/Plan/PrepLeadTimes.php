<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

/** Preparation of raw meat before loading, and how long before: seconds, null for none. */
final readonly class PrepLeadTimes
{
    /** A cold room thaws about so many grams of one piece in a day. */
    private const THAWS_A_DAY = 2200;
    private const DAY = 24 * 3600;

    /**
     * @param int $thawing seconds out of the freezer before the first of the rest
     * @param int $fire before loading
     */
    public function __construct(
        public int $thawing = 0,
        public int $injected = 0,
        public int $seasoned = 0,
        public int $tempered = 0,
        public int $fire = 3600,
    ) {
    }

    /** @param int $grams of one piece */
    public static function thawing(int $grams): int
    {
        return self::DAY * max(1, (int) ceil($grams / self::THAWS_A_DAY));
    }

    /** When it has to be out of the freezer, before loading. */
    public function thawed(): int
    {
        return $this->thawing === 0 ? 0 : $this->thawing + max($this->injected, $this->seasoned, $this->tempered);
    }
}
