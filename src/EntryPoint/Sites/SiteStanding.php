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
     * @param list<DueLine> $lines what is late or to be settled, then what is due next
     * @param int $more how many lines more there are
     * @param array<string, KitchenFigure> $needed where somebody is needed, by the name of the route
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
