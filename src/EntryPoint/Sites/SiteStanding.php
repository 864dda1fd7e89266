<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Sites;

use Verjuicer\App\EntryPoint\Kitchen\KitchenFigure;
use Verjuicer\App\Operations\Due\DueLine;
use Verjuicer\App\Site\People\Account;

/** How one of an owner's sites stands. */
final readonly class SiteStanding
{
    /**
     * @param int $open batches on its board
     * @param list<DueLine> $lines late or open items, then the next due
     * @param int $more how many lines more there are
     * @param array<string, KitchenFigure> $needed figures that need attention, by route name
     */
    public function __construct(
        public Account $account,
        public int $open,
        public array $lines,
        public int $more,
        public array $needed,
    ) {
    }
}
