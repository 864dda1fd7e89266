<?php

declare(strict_types=1);

// For bench/pages: /empty is a page of a Symfony with nothing in it, /empty-user one that knows who is logged in; all
// else is the application. All run in this one process.

use Symfony\Component\HttpFoundation\Request;

$kernels = ['/empty' => 'EmptyKernel', '/empty-user' => 'UserKernel'];
$of = $kernels[strtok((string) $_SERVER['REQUEST_URI'], '?')] ?? null;
if ($of === null) {
    $_SERVER['SCRIPT_NAME'] = '/index.php';
    require dirname(__DIR__, 2).'/public/index.php';

    return true;
}
require dirname(__DIR__, 2).'/vendor/autoload.php';
require __DIR__."/$of.php";

$_ENV += getenv();
$kernel = new $of('prod', false);
$request = Request::createFromGlobals();
$response = $kernel->handle($request);
$response->send();
$kernel->terminate($request, $response);
