<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Sites;

use Verjuicer\App\Catalogue\Holding\HoldUnits;
use Verjuicer\App\EntryPoint\Kitchen\KitchenFigure;
use Verjuicer\App\EntryPoint\Kitchen\KitchenFigures;
use Verjuicer\App\Operations\Due\DueLines;
use Verjuicer\App\Operations\Due\DueNext;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\People\Role;
use Verjuicer\App\Site\Tenancy\Tenant;

/** All sites of an owner at once; each is asked within its own walls. */
final readonly class SiteStandings
{
    private const MOST_LINES = 5;

    public function __construct(
        private Tenant $tenant,
        private Lanes $lanes,
        private DueNext $dueNext,
        private HoldUnits $units,
        private KitchenFigures $figures,
        private Now $now,
    ) {
    }

    /**
     * @param list<Account> $accounts
     *
     * @return list<SiteStanding> of those that are an owner's
     */
    public function of(array $accounts): array
    {
        $standings = [];
        foreach ($accounts as $account) {
            if ($account->role === Role::Owner) {
                $standings[] = $this->tenant->within($account->siteId(), fn (): SiteStanding => $this->one($account));
            }
        }

        return $standings;
    }

    private function one(Account $account): SiteStanding
    {
        $site = $account->site;
        $open = $this->lanes->open($site)->lanes;
        $unsettled = $this->lanes->unsettled($site)->rows;
        $lines = DueLines::of(
            $this->dueNext->of(
                [...$open, ...$unsettled],
                $this->now->instant(),
                $site->unit,
                $this->units->intervals($site),
            ),
        );

        return new SiteStanding(
            $account,
            \count($open),
            \array_slice($lines, 0, self::MOST_LINES),
            max(0, \count($lines) - self::MOST_LINES),
            array_filter($this->figures->of($site), static fn (KitchenFigure $one): bool => $one->needsSomebody),
        );
    }
}
