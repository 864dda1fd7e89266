<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Settings;

use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Ruleset\HouseLimits;
use Verjuicer\Core\Ruleset\RuleSet;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/** The code a site works under now, with the house limits it has made stricter. */
final readonly class SiteRules
{
    public function __construct(private RuleSetLibrary $library, private Now $now)
    {
    }

    public function of(Site $site): RuleSet
    {
        return $this->inForce($site)->stricter($site->house());
    }

    /** Our defaults, that a site may only make stricter. */
    public function usual(Site $site): HouseLimits
    {
        return $this->inForce($site)->house();
    }

    private function inForce(Site $site): RuleSet
    {
        return $this->library->get($site->ruleSetAt($this->now->instant()));
    }
}
