<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Paging;

/**
 * A page of a list, and where the next one begins.
 *
 * @template-covariant T
 */
final readonly class Page
{
    /** Rows to a page. */
    public const ROWS = 60;

    /** @param list<T> $rows */
    private function __construct(public array $rows, public ?string $next)
    {
    }

    /**
     * @template R
     *
     * @param list<R> $rows one more than fits where there are more
     * @param \Closure(R): PageKey $key
     *
     * @return self<R>
     */
    public static function of(array $rows, \Closure $key): self
    {
        if (\count($rows) <= self::ROWS) {
            return new self($rows, null);
        }
        $shown = \array_slice($rows, 0, self::ROWS);

        return new self($shown, (string) $key($shown[self::ROWS - 1]));
    }
}
