<?php

declare(strict_types=1);

// The one function of PHP 8.5 that Symfony 7.4 asks a polyfill for; the polyfill package itself is replaced in
// composer.json.
if (!function_exists('get_error_handler')) {
    function get_error_handler(): ?callable
    {
        $current = set_error_handler(null);
        restore_error_handler();

        return $current;
    }
}
