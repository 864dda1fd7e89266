<?php

declare(strict_types=1);

// What every request needs, compiled and linked once when php-fpm starts.
$preload = glob(dirname(__DIR__).'/var/cache/prod/*.preload.php');
foreach ($preload === false ? [] : $preload as $file) {
    require $file;
}
