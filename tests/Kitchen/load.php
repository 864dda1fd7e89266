<?php

declare(strict_types=1);

// Loads the kitchen of the tests into the database of the environment, once; "now" in place of its moment for tests in
// a browser.

use Symfony\Component\Clock\Clock;
use Symfony\Component\Clock\MockClock;
use Symfony\Component\DependencyInjection\ContainerInterface;
use Symfony\Component\Dotenv\Dotenv;
use Verjuicer\App\Door\Demo\DemoDuty;
use Verjuicer\App\Door\Demo\DemoPlans;
use Verjuicer\App\Door\Demo\DemoSensors;
use Verjuicer\App\Door\Demo\StoryLoader;
use Verjuicer\App\Kernel;
use Verjuicer\App\Work\Alarm\Watch;
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
$watch = $services->get(Watch::class);
assert($watch instanceof Watch);
$watch->look($site);
