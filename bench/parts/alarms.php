<?php

declare(strict_types=1);

// What bench/alarms does while it kills: unplugs probes in turn, and plugs each in again after more than a look takes.

use Symfony\Component\HttpClient\HttpClient;

require dirname(__DIR__, 2).'/vendor/autoload.php';

const LASTS = 25;
const TURN = 4;

[, $database, $file, $base, $kills] = $argv;
$secrets = explode("\n", (string) file_get_contents($file));
$url = parse_url($database);
assert(is_array($url));
$connect = static fn (): PDO => new PDO(
    sprintf('pgsql:host=%s;port=%d;dbname=%s', $url['host'] ?? '', $url['port'] ?? 0, trim($url['path'] ?? '', '/')),
    $url['user'] ?? null,
);
$http = HttpClient::create(['timeout' => 5]);
/** Sends it until it is kept, as a probe does. */
$send = static function (int $probe, bool $isOut, int $at) use ($http, $base, $secrets): void {
    for ($tries = 0; $tries < 200; ++$tries) {
        try {
            $http->request('POST', $base.'/api/v1/readings', [
                'auth_bearer' => $secrets[$probe],
                'json' => ['readings' => [
                    ['sequence' => $at, 'at' => gmdate('Y-m-d\TH:i:s\Z', $at)]
                    + ($isOut ? ['unplugged' => true] : ['temp' => ['f' => 150.0 + $at % 7 / 10]]),
                ]],
            ])->getContent();

            return;
        } catch (Throwable) {
            usleep(200_000);
        }
    }
};
/** The processes of one of them, as deploy/serve began it here: no others of the machine. */
$find = static function (string $pattern) use ($argv): array {
    $pids = array_map(intval(...), explode("\n", (string) shell_exec('pgrep -f '.escapeshellarg($pattern))));

    return array_filter($pids, static function (int $pid) use ($argv): bool {
        $said = @file_get_contents("/proc/$pid/environ").@file_get_contents("/proc/$pid/cmdline");

        return $pid > 0 && (str_contains($said, $argv[6]) || str_contains($said, $argv[5]));
    });
};
$victims = [
    'watch' => 'verjuicer:watch',
    'php-fpm' => 'php-fpm: master.*'.preg_quote($argv[5], '/'),
    'database' => 'postgres -D '.preg_quote($argv[6], '/'),
];

$out = array_fill(0, count($secrets), 0);
$killed = array_fill_keys(array_keys($victims), 0);
$probe = 0;
for ($kill = 0; $kill < (int) $kills; ++$kill) {
    $now = time();
    foreach ($out as $one => $since) {
        if ($since !== 0 && $now - $since >= LASTS) {
            $send($one, false, time());
            $out[$one] = 0;
        }
    }
    $probe = ($probe + 1) % count($secrets);
    if ($out[$probe] === 0) {
        $out[$probe] = time();
        $send($probe, true, $out[$probe]);
    }
    usleep(random_int(0, 1_500_000));
    $name = array_rand($victims);
    $pids = $find($victims[$name]);
    if ($pids !== []) {
        posix_kill(min($pids), 9);
        ++$killed[$name];
    }
    sleep(TURN);
}
sleep(30);
$pdo = $connect();
$one = static fn (string $sql): int => (int) $pdo->query($sql)->fetchColumn();
$faults = $one("SELECT count(*) FROM sensor_fault WHERE kind = 'unplugged'");
$raised = $one("SELECT count(*) FROM alarm WHERE cause LIKE 'sensor:%:unplugged:%'");
$sent = $one("SELECT count(*) FROM alarm_sending s JOIN alarm a ON a.id = s.alarm_id
    WHERE a.cause LIKE 'sensor:%:unplugged:%' AND s.step = 0 AND s.sent_at IS NOT NULL");
$shown = $one("SELECT count(*) FROM stand_in_message WHERE words LIKE '%nothing plugged in%'
    AND id IN (SELECT id FROM alarm_sending WHERE step = 0)");
$late = $pdo->query("SELECT extract(epoch FROM a.raised_at - f.from_at)::int AS s FROM alarm a
    JOIN sensor_fault f ON f.kind = 'unplugged' AND a.cause LIKE '%:unplugged:' || extract(epoch FROM f.from_at)::bigint
    JOIN sensor_channel c ON c.id = f.channel_id AND a.cause LIKE 'sensor:' || c.sensor_id || ':%' ORDER BY 1")
    ->fetchAll(PDO::FETCH_COLUMN);
printf("killed: %s\n", json_encode($killed));
printf("%d faults, %d alarms, %d told, %d shown by the stand-in\n", $faults, $raised, $sent, $shown);
printf(
    "from cause to alarm: %d s half of the time, %d s 19 times in 20, %d s at the most\n",
    $late[intdiv(count($late), 2)] ?? -1,
    $late[(int) (0.95 * (count($late) - 1))] ?? -1,
    end($late) ?: -1,
);
exit($faults === $raised && $raised === $sent && $sent === $shown ? 0 : 1);
