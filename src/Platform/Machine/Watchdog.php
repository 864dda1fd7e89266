<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Machine;

/**
 * Tells systemd that a process is alive (sd_notify(3)), so that a hanging one is restarted. Does nothing without
 * systemd.
 */
final readonly class Watchdog
{
    public static function ping(): void
    {
        $socket = (string) getenv('NOTIFY_SOCKET');
        if ($socket === '') {
            return;
        }
        // "@" stands for a socket without a file.
        $stream = @stream_socket_client('udg://'.preg_replace('/^@/', "\0", $socket));
        if ($stream !== false) {
            @fwrite($stream, 'WATCHDOG=1');
            fclose($stream);
        }
    }
}
