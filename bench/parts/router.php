<?php

declare(strict_types=1);

// For bench/pages: /empty is a page of a Symfony with nothing in it; all else is the application. Both run in this one
// process.

use Symfony\Component\HttpFoundation\Request;

if (strtok((string) $_SERVER['REQUEST_URI'], '?') !== '/empty') {
    $_SERVER['SCRIPT_NAME'] = '/index.php';
    require dirname(__DIR__, 2).'/public/index.php';

    return true;
}
require dirname(__DIR__, 2).'/vendor/autoload.php';
require __DIR__.'/EmptyKernel.php';

$kernel = new EmptyKernel('prod', false);
$request = Request::createFromGlobals();
$response = $kernel->handle($request);
$response->send();
$kernel->terminate($request, $response);
