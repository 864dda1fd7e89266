<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Paging;

/**
 * Where a page of a list goes on: after the row with this place in its order, and this id among those of the same
 * place.
 */
final readonly class PageKey implements \Stringable
{
    public function __construct(public int $place, public string $id)
    {
    }

    /** @return self|null null for the first page and for an invalid key */
    public static function parse(string $given): ?self
    {
        return preg_match('/^(-?\d{1,15})~([0-9a-f-]{36})$/D', $given, $part) === 1
            ? new self((int) $part[1], $part[2])
            : null;
    }

    /** Before every row of a list that runs down from the latest or the greatest. */
    public static function first(): self
    {
        return new self(253_402_300_799, 'ffffffff-ffff-ffff-ffff-ffffffffffff');
    }

    /** @return array{place: int, id: string, most: int} of a statement that reads the page after it */
    public function parameters(): array
    {
        return ['place' => $this->place, 'id' => $this->id, 'most' => Page::ROWS + 1];
    }

    public function __toString(): string
    {
        return $this->place.'~'.$this->id;
    }
}
