<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Browser;

use PHPUnit\Framework\TestCase;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\Process\Process;

/** How it is served: by nginx and php-fpm as in a kitchen, with a page of one line in place of the application. */
final class ServingTest extends TestCase
{
    private const APP = __DIR__.'/../..';

    private string $folder = '';
    private ?Process $server = null;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/verjuicer-serving-'.bin2hex(random_bytes(6));
    }

    protected function tearDown(): void
    {
        $this->server?->stop(15);
        (new Filesystem())->remove($this->folder);
    }

    public function testAnEntryIsAnsweredWhileEveryProcessForPagesIsBusy(): void
    {
        $socket = stream_socket_server('tcp://127.0.0.1:0');
        self::assertIsResource($socket);
        $port = (int) substr((string) strrchr((string) stream_socket_get_name($socket, false), ':'), 1);
        fclose($socket);
        $environment = [
            'PORT' => $port,
            'FPM_CHILDREN' => 1,
            'FPM_ENTRIES' => 1,
            'FRONT' => 'tests/Browser/one-line.php',
            'SERVING' => $this->folder,
        ];
        $serves = ['deploy/serve', $this->folder, '--no-worker'];
        $this->server = new Process($serves, self::APP, $environment, null, null);
        $this->server->start();
        $at = "http://127.0.0.1:$port";
        $waits = new Process(
            [
                'bash',
                '-c',
                '. deploy/serving.sh; await_server "$0/healthz" "$1" 60',
                $at,
                (string) $this->server->getPid(),
            ],
            self::APP,
        );
        $waits->setTimeout(90)->mustRun();
        $polls = new Process(['curl', '-s', "$at/board/live"]);
        $polls->start();
        while (!is_file($this->folder.'/polled')) {
            usleep(20_000);
        }
        $entry = new Process(['curl', '-s', '-m', '20', '-d', 'line=7+203', "$at/log"]);
        $entry->mustRun();
        self::assertSame('kept', $entry->getOutput());
        self::assertTrue($polls->isRunning(), 'the board still waits');
        touch($this->folder.'/go-on');
        $polls->wait();
        self::assertSame('a board', $polls->getOutput());
    }

    public function testWhoWaitsForTheServerSaysForWhatAndSeesItEnd(): void
    {
        $wait = static function (string $server, int $seconds): Process {
            $script = ". deploy/serving.sh; $server & await_server http://127.0.0.1:1/healthz \$! $seconds";
            $process = new Process(['bash', '-c', $script], self::APP);
            $process->run();

            return $process;
        };
        $ended = $wait('true', 60);
        self::assertSame(1, $ended->getExitCode());
        self::assertStringContainsString('ended before it answered', $ended->getErrorOutput());
        $silent = $wait('exec sleep 9', 4);
        self::assertSame(1, $silent->getExitCode());
        self::assertStringContainsString('Waiting for the server to answer at http', $silent->getErrorOutput());
        self::assertStringContainsString('within 4 s', $silent->getErrorOutput());
    }
}
