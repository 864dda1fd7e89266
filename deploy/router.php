<?php

declare(strict_types=1);

// For PHP's own server: files of public/ as they are, all else through the application, addresses with a dot in them included.
$path = rawurldecode((string) parse_url((string) ($_SERVER['REQUEST_URI'] ?? '/'), \PHP_URL_PATH));
$file = dirname(__DIR__).'/public'.$path;
if ($path !== '/' && !str_contains($path, '..') && !str_ends_with($path, '.php') && is_file($file)) {
    $types = ['css' => 'text/css', 'js' => 'text/javascript', 'svg' => 'image/svg+xml', 'woff2' => 'font/woff2'];
    $type = $types[pathinfo($path, \PATHINFO_EXTENSION)] ?? null;
    if ($type === null || !str_starts_with($path, '/assets/')) {
        return false;
    }
    // The name of an asset holds the digest of what is in it; it was packed when it was built.
    header("Content-Type: $type");
    header('Cache-Control: public, max-age=31536000, immutable');
    header('Vary: Accept-Encoding');
    if (is_file("$file.gz") && str_contains((string) ($_SERVER['HTTP_ACCEPT_ENCODING'] ?? ''), 'gzip')) {
        header('Content-Encoding: gzip');
        $file .= '.gz';
    }
    ini_set('zlib.output_compression', '0');
    readfile($file);

    return true;
}
$_SERVER['SCRIPT_NAME'] = '/index.php';
$_SERVER['SCRIPT_FILENAME'] = dirname(__DIR__).'/public/index.php';
require dirname(__DIR__).'/public/index.php';
