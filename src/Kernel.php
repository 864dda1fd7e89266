<?php

declare(strict_types=1);

namespace Verjuicer\App;

use Symfony\Bundle\FrameworkBundle\Kernel\MicroKernelTrait;
use Symfony\Component\HttpKernel\Kernel as HttpKernel;

final class Kernel extends HttpKernel
{
    use MicroKernelTrait;
}
