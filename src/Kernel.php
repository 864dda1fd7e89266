<?php

declare(strict_types=1);

namespace Verjuicer\App;

use Symfony\Bundle\FrameworkBundle\Kernel\MicroKernelTrait;
use Symfony\Component\Clock\Clock;
use Symfony\Component\HttpKernel\Kernel as HttpKernel;
use Verjuicer\App\Platform\PlayedClock;

final class Kernel extends HttpKernel
{
    use MicroKernelTrait;

    public function boot(): void
    {
        $said = $_SERVER['PLAYED_CLOCK'] ?? '';
        $clock = \is_string($said) ? PlayedClock::of($said) : null;
        if ($clock !== null) {
            Clock::set($clock);
        }
        parent::boot();
    }
}
