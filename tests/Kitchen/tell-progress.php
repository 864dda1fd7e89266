<?php

declare(strict_types=1);

// Tells, as the worker would, how far the only import of a database is; for MovingHouseTest.

use Symfony\Component\DependencyInjection\ContainerInterface;
use Symfony\Component\Dotenv\Dotenv;
use Verjuicer\App\Kernel;
use Verjuicer\App\Reporting\Exchange\Imports;
use Verjuicer\App\Site\People\Accounts;

require dirname(__DIR__, 2).'/vendor/autoload.php';

(new Dotenv())->bootEnv(dirname(__DIR__, 2).'/.env', 'test');
$kernel = new Kernel('test', false);
$kernel->boot();
$services = $kernel->getContainer()->get('test.service_container');
assert($services instanceof ContainerInterface);
$accounts = $services->get(Accounts::class);
$imports = $services->get(Imports::class);
assert($accounts instanceof Accounts && $imports instanceof Imports);
$account = $accounts->named('dell');
assert($account !== null);
$import = $imports->of($account->site, 1)[0] ?? null;
assert($import !== null);
$taking = $imports->taking($import);
$taking->total = 10;
$taking->tell(3);
