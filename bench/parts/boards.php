<?php

declare(strict_types=1);

// What bench/boards does: many boards that keep themselves current, and one person who logs.

use Symfony\Component\HttpClient\HttpClient;
use Verjuicer\App\EntryPoint\Simulate\SiteClient;

require dirname(__DIR__, 2).'/vendor/autoload.php';

[, $base, $boards, $seconds] = $argv;
$http = HttpClient::create(['timeout' => 30, 'max_redirects' => 0]);
$person = new SiteClient($http, $base);
$person->logIn('ike', 'oak-and-patience');
$cookie = $person->cookies();

/** Asks for all boards within five seconds, again and again. */
$run = static function (int $for, bool $isLogging) use ($http, $base, $boards, $cookie, $person): array {
    $tags = array_fill(0, (int) $boards, '');
    $took = $unchanged = [];
    $until = microtime(true) + $for;
    $logged = 0.0;
    while (microtime(true) < $until) {
        $round = microtime(true);
        $waits = [];
        for ($board = 0; $board < (int) $boards; ++$board) {
            $due = $round + 5 * $board / (int) $boards;
            while (microtime(true) < $due) {
                foreach ($http->stream($waits, 0.002) as $response => $chunk) {
                    if ($chunk->isTimeout()) {
                        continue;
                    }
                    if ($chunk->isFirst()) {
                        $response->getStatusCode(); // that nothing changed is no error here
                    }
                    if (!$chunk->isLast()) {
                        continue;
                    }
                    $one = $response->getInfo('user_data');
                    $took[] = microtime(true) - $one['at'];
                    $tags[$one['board']] = $response->getHeaders(false)['etag'][0] ?? $tags[$one['board']];
                    $unchanged[] = $response->getStatusCode() === 304;
                    $waits = array_filter($waits, static fn (object $wait): bool => $wait !== $response);
                }
                if ($waits === []) {
                    usleep(1000);
                }
            }
            if ($isLogging && microtime(true) - $logged > 2) {
                $logged = microtime(true);
                $page = $person->page('/log')->filter('form[action="/log"] input[name="_token"]');
                $person->post('/log', [
                    '_token' => $page->attr('value') ?? '',
                    'id' => Symfony\Component\Uid\Uuid::v7()->toRfc4122(),
                    'back' => '/',
                    'line' => sprintf('7 17%d.%d', random_int(0, 9), random_int(0, 9)),
                    'sure' => '1',
                ]);
            }
            $waits[] = $http->request('GET', $base.'/board/live', [
                'headers' => ['Cookie' => $cookie] + ($tags[$board] === '' ? [] : ['If-None-Match' => $tags[$board]]),
                'user_data' => ['board' => $board, 'at' => microtime(true)],
            ]);
        }
        foreach ($waits as $response) {
            $response->getStatusCode();
            $took[] = microtime(true) - $response->getInfo('user_data')['at'];
        }
    }
    sort($took);

    return [$took, count(array_filter($unchanged)) / max(1, count($unchanged))];
};
/** Seconds of processor the whole machine spent so far. */
$busy = static function (): float {
    $stat = (string) file_get_contents('/proc/stat');
    $first = explode(' ', (string) preg_replace('/ +/', ' ', (string) strtok($stat, "\n")));

    return ((float) $first[1] + (float) $first[3]) / 100;
};
foreach ([[true, 'somebody logs every two seconds'], [false, 'nothing happens']] as [$isLogging, $words]) {
    $before = $busy();
    [$took, $unchanged] = $run((int) $seconds, $isLogging);
    printf(
        '%s boards, %s: %d updates, half in %.0f ms, 19 of 20 in %.0f ms, the slowest %.0f ms; %.0f %% unchanged; '
        ."%.0f %% of two cores busy, this client among it\n",
        $boards,
        $words,
        count($took),
        1000 * $took[intdiv(count($took), 2)],
        1000 * $took[(int) (0.95 * (count($took) - 1))],
        1000 * end($took),
        100 * $unchanged,
        100 * ($busy() - $before) / (2 * (int) $seconds),
    );
}
