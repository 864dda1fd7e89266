<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Projection;

use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Projection\Projection;
use Verjuicer\Core\Assess\Assessment;

/** A read table that can be made to fail, and to have another shape. */
final class BrittleProjection implements Projection
{
    public static bool $isBroken = false;

    public static int $version = 1;

    public function shape(): string
    {
        return 'brittle '.self::$version;
    }

    public function write(Batch $batch, Assessment $assessment): void
    {
        if (self::$isBroken) {
            throw new \LogicException('broken on purpose');
        }
    }
}
