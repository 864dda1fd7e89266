<?php

declare(strict_types=1);

return [
    'app' => ['path' => './assets/scripts/app.js', 'entrypoint' => true],
    '@alpinejs/csp' => ['path' => './assets/vendor/alpine.js'],
];
