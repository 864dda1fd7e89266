<?php

declare(strict_types=1);

// For bench/packets: asks for all there is of so many days, as somebody at the page does.

require dirname(__DIR__, 2).'/vendor/autoload.php';
require __DIR__.'/Visitor.php';

[, $base, $days] = $argv;
$visitor = new Visitor($base);
$visitor->logIn('dell');
$page = $visitor->ask('/packets')[0];
preg_match('/name="_token" value="([^"]+)"/', $page, $token) === 1 || exit("The page of packets is not there.\n");
preg_match('/name="id" value="([^"]+)"/', $page, $id) === 1 || exit("The page of packets has no form.\n");
[$body, , $status] = $visitor->ask('/packets', [
    '_token' => $token[1],
    'id' => $id[1],
    'from' => gmdate('Y-m-d', time() - 86_400 * ((int) $days + 3)),
    'to' => gmdate('Y-m-d', time() - 86_400 * 2),
    'paper' => 'Letter',
]);
preg_match('/<h1[^>]*>(.*?)<\/h1>/s', $body, $heading);
printf("asked for, %d: %s\n", $status, trim(strip_tags($heading[1] ?? '')));
