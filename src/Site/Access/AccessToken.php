<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Access;

use Verjuicer\Core\Measure\Instant;

/** A secret that lets a machine in: a sensor that sends, or something that reads. Of the secret a digest is kept. */
final readonly class AccessToken
{
    /**
     * @param string|null $sensorId null where it reads
     * @param string $keyId SHA-256 of the SHA-256 of the secret, in hexadecimal: a sensor logs in at the broker by it
     */
    public function __construct(
        public string $id,
        public string $siteId,
        public ?string $sensorId,
        public string $keyId,
        public string $name,
        public Instant $madeAt,
        public string $madeBy,
        public ?Instant $revokedAt,
    ) {
    }
}
