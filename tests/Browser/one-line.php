<?php

declare(strict_types=1);

// Stands for the application: a board that takes until it is told to go on, and an entry that is kept at once.
$folder = (string) getenv('SERVING');
if ($_SERVER['REQUEST_METHOD'] === 'POST') {
    echo 'kept';
} elseif (str_starts_with((string) $_SERVER['REQUEST_URI'], '/board')) {
    touch($folder.'/polled');
    for ($tries = 0; $tries < 400 && !is_file($folder.'/go-on'); ++$tries) {
        usleep(50_000);
        clearstatcache();
    }
    echo 'a board';
}
