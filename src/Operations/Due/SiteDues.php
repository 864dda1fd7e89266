<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Due;

use Verjuicer\App\Catalogue\Holding\HoldUnits;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\App\Site\Site\Site;

/** All that is due in a site, wherever nobody filters it. */
final readonly class SiteDues
{
    public function __construct(
        private Lanes $lanes,
        private DueNext $dueNext,
        private HoldUnits $units,
        private Now $now,
    ) {
    }

    /**
     * @param list<Lane>|null $lanes where somebody has them already
     *
     * @return list<Due> late first
     */
    public function of(Site $site, ?array $lanes = null): array
    {
        return $this->dueNext->of(
            $lanes ?? [...$this->lanes->open($site)->lanes, ...$this->lanes->unsettled($site)->rows],
            $this->now->instant(),
            $site->unit,
            $this->units->intervals($site),
        );
    }
}
