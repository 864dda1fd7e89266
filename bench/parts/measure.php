<?php

declare(strict_types=1);

// For bench/pages: logs in, then measures 80 requests of each page, in turn; the median of each.

require dirname(__DIR__, 2).'/vendor/autoload.php';

$base = $argv[1];
$cookies = tempnam(sys_get_temp_dir(), 'bench');
$ask = static function (string $path, ?array $form = null) use ($base, $cookies): array {
    static $handle = null;
    $handle ??= curl_init();
    curl_reset($handle);
    curl_setopt_array($handle, [\CURLOPT_URL => $base.$path, \CURLOPT_RETURNTRANSFER => true, \CURLOPT_COOKIEJAR => $cookies, \CURLOPT_COOKIEFILE => $cookies, \CURLOPT_FOLLOWLOCATION => true, \CURLOPT_TIMEOUT => 20]
        + ($form === null ? [] : [\CURLOPT_POSTFIELDS => http_build_query($form)]));
    $body = (string) curl_exec($handle);

    return [$body, curl_getinfo($handle, \CURLINFO_STARTTRANSFER_TIME) * 1000, curl_getinfo($handle, \CURLINFO_RESPONSE_CODE)];
};
preg_match('/_csrf_token" value="([^"]+)"/', $ask('/login')[0], $token);
[$board] = $ask('/login', ['_username' => 'mara', '_password' => 'oak-and-patience', '_csrf_token' => $token[1]]);
preg_match('#/batches/[0-9a-f-]{36}#', $board, $batch);
$lanes = substr_count($board, 'class="tag"');
$pages = ['empty page' => '/empty', "board ($lanes batches)" => '/', 'batch page (200 events)' => $batch[0]];
$times = [];
for ($round = 0; $round < 90; ++$round) {
    foreach ($pages as $name => $path) {
        [, $time, $status] = $ask($path);
        $status === 200 || exit("$path answered $status\n");
        if ($round >= 10) {
            $times[$name][] = $time;
        }
    }
}
unlink($cookies);
$empty = null;
foreach ($times as $name => $of) {
    sort($of);
    $median = $of[intdiv(count($of), 2)];
    $empty ??= $median;
    printf("%-26s median %6.1f ms   %4.1f times the empty page\n", $name, $median, $median / $empty);
}
