<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\EntryPoint;

use Verjuicer\App\EntryPoint\Demo\DemoDuty;
use Verjuicer\App\EntryPoint\Demo\DemoKitchen;
use Verjuicer\App\EntryPoint\Demo\DemoPlans;
use Verjuicer\App\EntryPoint\Demo\DemoSensors;
use Verjuicer\App\EntryPoint\Demo\Story;
use Verjuicer\App\EntryPoint\Demo\StoryLoader;
use Verjuicer\App\Operations\Alarm\AlarmWatch;
use Verjuicer\App\Site\Tenancy\Tenant;

/** The demo kitchen, or another one, in the place of the tests' own. */
trait DemoInTests
{
    /** @return array<string, string> the secrets of its sensors by name, and under "reads" a token that reads */
    private function loadTheDemo(?Story $story = null): array
    {
        $this->asOwner();
        $this->connection()->executeStatement('UPDATE site SET is_practice = false');
        $this->connection()->executeStatement("UPDATE person SET login = login || '-of-tests'");
        $site = $this->service(StoryLoader::class)->load($story ?? DemoKitchen::story());
        $this->service(DemoPlans::class)->load($site);
        $this->service(DemoDuty::class)->load($site);
        $secrets = $this->service(DemoSensors::class)->load($site);
        $this->service(DemoSensors::class)->place($site);
        $this->service(AlarmWatch::class)->look($site);
        $this->connection()->executeStatement('SET ROLE verjuicer_app');
        $this->service(Tenant::class)->enter($site->id);

        return $secrets;
    }
}
