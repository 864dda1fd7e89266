<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Search;

use Verjuicer\App\Platform\Paging\PageKey;

/** One hit of a search, or one line of a recall. */
final readonly class SearchHit
{
    /**
     * @param int $begunAt seconds since 1970
     * @param string|null $verdict null while it is not judged yet
     * @param string|null $where the pit, unit or place it is in, or was in last
     */
    public function __construct(
        public string $id,
        public int $tag,
        public string $code,
        public string $product,
        public int $begunAt,
        public ?string $verdict,
        public ?string $parent,
        public ?int $grams,
        public ?string $where,
        public ?string $stage,
        public ?int $endedAt,
    ) {
    }

    public function key(): PageKey
    {
        return new PageKey($this->begunAt, $this->id);
    }
}
