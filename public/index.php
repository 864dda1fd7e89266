<?php

declare(strict_types=1);

use Symfony\Component\Dotenv\Dotenv;
use Symfony\Component\HttpFoundation\Request;
use Verjuicer\App\Kernel;

require dirname(__DIR__).'/vendor/autoload.php';

// PHP's own server keeps its environment to itself; what is set there goes before the defaults of .env.
$_ENV += getenv();
(new Dotenv())->bootEnv(dirname(__DIR__).'/.env', 'prod');
$kernel = new Kernel(is_string($_SERVER['APP_ENV'] ?? null) ? $_SERVER['APP_ENV'] : 'prod', (bool) ($_SERVER['APP_DEBUG'] ?? false));
$request = Request::createFromGlobals();
$response = $kernel->handle($request);
$response->send();
$kernel->terminate($request, $response);
