<?php

declare(strict_types=1);

// For bench/kill: keeps notes one after another, each with an id of its own, and tries again with the same id until it
// is acknowledged, as the page does. Writes what was acknowledged, when, and how long nothing was.
// usage: load.php BASE FILE TAG: until it is told to stop (SIGTERM).

use Symfony\Component\Uid\Uuid;

require dirname(__DIR__, 2).'/vendor/autoload.php';

[, $base, $file, $tag] = $argv;
$stop = false;
pcntl_async_signals(true);
pcntl_signal(\SIGTERM, static function () use (&$stop): void {
    $stop = true;
});
$curl = curl_init();
assert($curl instanceof CurlHandle);
$jar = "$file.cookies";
/** @return array{int, string, string} status, where it leads, text */
$send = static function (string $path, ?array $fields = null) use ($curl, $base, $jar): array {
    curl_reset($curl);
    curl_setopt_array($curl, [
        \CURLOPT_URL => $base.$path,
        \CURLOPT_RETURNTRANSFER => true,
        \CURLOPT_COOKIEJAR => $jar,
        \CURLOPT_COOKIEFILE => $jar,
        \CURLOPT_SSL_VERIFYPEER => false,
        \CURLOPT_SSL_VERIFYHOST => 0,
        \CURLOPT_TIMEOUT => 20,
        \CURLOPT_CONNECTTIMEOUT => 2,
    ]);
    if ($fields !== null) {
        curl_setopt($curl, \CURLOPT_POSTFIELDS, http_build_query($fields));
    }
    $text = curl_exec($curl);

    return [
        (int) curl_getinfo($curl, \CURLINFO_RESPONSE_CODE),
        (string) curl_getinfo($curl, \CURLINFO_REDIRECT_URL),
        is_string($text) ? $text : '',
    ];
};
$hidden = static function (string $name, string $page): string {
    return preg_match('/name="'.$name.'" value="([^"]*)"/', $page, $part) === 1 ? $part[1] : '';
};
[, , $page] = $send('/login');
$asked = ['_username' => 'mara', '_password' => 'oak-and-patience', '_csrf_token' => $hidden('_csrf_token', $page)];
$send('/login', $asked);
[, , $page] = $send('/log');
$token = $hidden('_token', $page);
$token !== '' || exit("cannot log in\n");
$kept = fopen($file, 'w');
assert($kept !== false);
for ($n = 0; !$stop; ++$n) {
    $id = Uuid::v7()->toRfc4122();
    $line = "7 note load $tag-$n";
    while (true) {
        [$status, $where] = $send('/log', ['line' => $line, 'id' => $id, '_token' => $token]);
        if ($status === 303) {
            fwrite($kept, sprintf("%.3f %s\n", microtime(true), $id));
            break;
        }
        // Asked to log in again: then the session is lost. What is refused, as while the clock jumps, is tried again.
        if ($status === 302) {
            fwrite($kept, sprintf("%.3f lost-%s\n", microtime(true), $where));
            exit("asked to log in\n");
        }
        if ($stop) {
            break 2;
        }
        usleep(100_000);
    }
}
