<?php

declare(strict_types=1);

// The two steps of bench/probes: puts twenty probes into five batches; then sends twelve hours of them and, second by
// second, what comes after, and says how far the listener is behind.

use Verjuicer\App\Operations\Probe\SignedMessage;
use Verjuicer\App\Platform\Mqtt\MqttConnection;

require dirname(__DIR__, 2).'/vendor/autoload.php';

const PROBES = 20;
const HOURS = 12;
const AT_ONCE = 900;

[, $step, $database, $file] = $argv;
$url = parse_url($database);
assert(is_array($url));
$pdo = new PDO(
    sprintf('pgsql:host=%s;port=%d;dbname=%s', $url['host'] ?? '', $url['port'] ?? 0, trim($url['path'] ?? '', '/')),
    $url['user'] ?? null,
);

if ($step === 'register') {
    $account = $pdo->query("SELECT id, site_id FROM account WHERE initials = 'MR'")->fetch();
    $batches = $pdo->query('SELECT batch_id FROM open_tag ORDER BY tag LIMIT 5')->fetchAll(PDO::FETCH_COLUMN);
    $secrets = [];
    for ($probe = 0; $probe < PROBES; ++$probe) {
        $secret = bin2hex(random_bytes(16));
        $secrets[] = $secret;
        $add = $pdo->prepare(<<<'SQL'
            WITH s AS (INSERT INTO sensor (id, site_id, name, registered_at, registered_by)
                   VALUES (gen_random_uuid(), :site, :name, now(), :account) RETURNING id),
                 t AS (INSERT INTO thermometer (id, site_id, label, kind, serial, measures, holder)
                   VALUES (gen_random_uuid(), :site, :name, 'logger', '', '', '') RETURNING id),
                 c AS (INSERT INTO sensor_channel (id, site_id, sensor_id, number, thermometer_id)
                   SELECT gen_random_uuid(), :site, s.id, 1, t.id FROM s, t RETURNING id),
                 k AS (INSERT INTO access_token (id, site_id, sensor_id, name, token_hash, made_at, made_by)
                   SELECT gen_random_uuid(), :site, s.id, :name, :hash, now(), :account FROM s)
            SELECT id FROM c
            SQL);
        $add->execute([
            'site' => $account['site_id'],
            'name' => "X$probe",
            'account' => $account['id'],
            'hash' => hash('sha256', $secret),
        ]);
        $pdo->prepare(<<<'SQL'
            INSERT INTO sensor_assignment (id, site_id, channel_id, at, recorded_at, account_id, initials, target,
              batch_id, piece, spot)
            VALUES (gen_random_uuid(), ?, ?, now() - interval '13 hours', now(), ?, 'MR', 'batch', ?, 1, ?)
            SQL)->execute([
            $account['site_id'],
            $add->fetchColumn(),
            $account['id'],
            $batches[$probe % 5],
            'spot '.intdiv($probe, 5),
        ]);
    }
    file_put_contents($file, implode("\n", $secrets));
    exit(0);
}

$secrets = explode("\n", (string) file_get_contents($file));
$seconds = (int) ($argv[4] ?? 60);
$mqtt = new MqttConnection((string) getenv('MQTT_URL'), 'bench-probes');
$kept = static fn (): int => (int) $pdo->query('SELECT count(*) FROM series')->fetchColumn();
$read = static fn (int $probe, int $second): array => [
    'sequence' => $second,
    'at' => gmdate('Y-m-d\TH:i:s\Z', $second),
    // A slow rise with noise, as meat in a pit reads.
    'temp' => ['f' => round(60 + 100 * (1 - exp(-($second % 43_200) / 15_000)) + random_int(-2, 2) / 10 + $probe, 1)],
];
$publish = static function (int $probe, array $readings) use (&$mqtt, $secrets): void {
    $body = json_encode(['readings' => $readings], \JSON_THROW_ON_ERROR);
    $message = SignedMessage::of($secrets[$probe], $body);
    $mqtt->publish($message->topic(), $message->payload());
};

$now = time();
$began = microtime(true);
$sent = 0;
for ($from = $now - 3600 * HOURS; $from < $now; $from += AT_ONCE) {
    for ($probe = 0; $probe < PROBES; ++$probe) {
        $readings = [];
        for ($second = $from; $second < min($from + AT_ONCE, $now); ++$second) {
            $readings[] = $read($probe, $second);
        }
        $publish($probe, $readings);
        $sent += count($readings);
    }
}
while ($kept() < $sent) {
    usleep(200_000);
}
printf(
    "%d samples of twelve hours taken in %.0f s: %.0f a second, 20 asked for\n",
    $sent,
    microtime(true) - $began,
    $sent / (microtime(true) - $began),
);
$events = (int) $pdo->query("SELECT count(*) FROM event WHERE initials LIKE 'X%'")->fetchColumn();
printf("%d of them are in records: one in %.0f\n", $events, $sent / max(1, $events));

// The broker takes for gone who said nothing while those were taken in.
$mqtt = new MqttConnection((string) getenv('MQTT_URL'), 'bench-probes-live');
$next = time() + 1;
$behind = [];
for ($second = 0; $second < $seconds; ++$second, ++$next) {
    while (microtime(true) < $next) {
        usleep(5_000);
    }
    for ($probe = 0; $probe < PROBES; ++$probe) {
        $publish($probe, [$read($probe, $next)]);
        ++$sent;
    }
    $behind[] = ($sent - PROBES - $kept()) / PROBES;
}
sort($behind);
printf(
    "%d s at 20 a second: behind by %.2f s at the most, %.2f s half of the time\n",
    $seconds,
    max(0.0, end($behind)),
    max(0.0, $behind[intdiv(count($behind), 2)]),
);
