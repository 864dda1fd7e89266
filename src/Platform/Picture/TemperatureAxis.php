<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Picture;

use Verjuicer\Core\Measure\Temperature;

/** Hot is up: places temperatures of either unit between two ends on a height. */
final readonly class TemperatureAxis
{
    public function __construct(
        private Temperature $coldest,
        private Temperature $hottest,
        public int $top,
        public int $bottom,
    ) {
    }

    public function y(Temperature $temperature): float
    {
        $share =
            ($temperature->ninetieths - $this->coldest->ninetieths)
            / ($this->hottest->ninetieths - $this->coldest->ninetieths);

        return round(max($this->top, min($this->bottom, $this->bottom - $share * ($this->bottom - $this->top))), 1);
    }
}
