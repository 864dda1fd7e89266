<?php

declare(strict_types=1);

// Libraries that come with the system and not from Composer, found on PHP's include path: QR codes (php-bacon-qr-code).
require_once 'Bacon/BaconQrCode/autoload.php';
