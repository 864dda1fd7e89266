<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event;

/** A needle or a blade carries the surface inside: from here on the meat is non-intact. */
interface CarriesSurfaceInside extends Detail
{
}
