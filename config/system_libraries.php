<?php

declare(strict_types=1);

// Libraries that come with the system and not from Composer, found on PHP's include path: QR codes
// (php-bacon-qr-code), codes of authenticators (php-christianriesen-otp).
require_once 'Bacon/BaconQrCode/autoload.php';
require_once 'ChristianRiesen/Otp/autoload.php';
