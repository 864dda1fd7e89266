<?php

declare(strict_types=1);

// For PHP's own server: files of public/ as they are, all else through the application, addresses with a dot in them included.
$path = rawurldecode((string) parse_url((string) ($_SERVER['REQUEST_URI'] ?? '/'), \PHP_URL_PATH));
if ($path !== '/' && !str_contains($path, '..') && !str_ends_with($path, '.php') && is_file(dirname(__DIR__).'/public'.$path)) {
    return false;
}
$_SERVER['SCRIPT_NAME'] = '/index.php';
$_SERVER['SCRIPT_FILENAME'] = dirname(__DIR__).'/public/index.php';
require dirname(__DIR__).'/public/index.php';
