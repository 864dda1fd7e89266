<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

enum ClockFace: string
{
    case Hours24 = '24';
    case Hours12 = '12';
}
