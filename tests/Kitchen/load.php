<?php

declare(strict_types=1);

// Loads the kitchen of the tests into the database of the environment, once; "now" in place of its moment for tests in
// a browser.

use Symfony\Component\Clock\Clock;
use Symfony\Component\Clock\MockClock;
use Symfony\Component\DependencyInjection\ContainerInterface;
use Symfony\Component\Dotenv\Dotenv;
use Verjuicer\App\EntryPoint\Demo\DemoDuty;
use Verjuicer\App\EntryPoint\Demo\DemoPlans;
use Verjuicer\App\EntryPoint\Demo\DemoSensors;
use Verjuicer\App\EntryPoint\Demo\StoryLoader;
use Verjuicer\App\Kernel;
use Verjuicer\App\Operations\Alarm\AlarmWatch;
use Verjuicer\Tests\Kitchen\TestKitchen;

require dirname(__DIR__, 2).'/vendor/autoload.php';

(new Dotenv())->bootEnv(dirname(__DIR__, 2).'/.env', 'test');
$kernel = new Kernel('test', false);
$kernel->boot();
if (($argv[1] ?? '') !== 'now') {
    $_SERVER['VERJUICER_KEYS'] = $_ENV['VERJUICER_KEYS'] = TestKitchen::keys();
    // Keys of kitchens loaded before: their sites are gone.
    array_map(unlink(...), (array) glob(TestKitchen::keys().'/*'));
    Clock::set(new MockClock(TestKitchen::MOMENT));
}
$services = $kernel->getContainer()->get('test.service_container');
assert($services instanceof ContainerInterface);
$loader = $services->get(StoryLoader::class);
assert($loader instanceof StoryLoader);
$plans = $services->get(DemoPlans::class);
assert($plans instanceof DemoPlans);
$sensors = $services->get(DemoSensors::class);
assert($sensors instanceof DemoSensors);
$site = $loader->load(TestKitchen::story());
$plans->load($site);
$sensors->load($site);
$duty = $services->get(DemoDuty::class);
assert($duty instanceof DemoDuty);
$duty->load($site);
$watch = $services->get(AlarmWatch::class);
assert($watch instanceof AlarmWatch);
$watch->look($site);
