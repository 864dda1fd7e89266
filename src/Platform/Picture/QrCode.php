<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Picture;

use BaconQrCode\Common\ErrorCorrectionLevel;
use BaconQrCode\Encoder\Encoder;

/** A QR code as an SVG path. */
final readonly class QrCode
{
    /** Modules left white around it. */
    private const MARGIN = 1;

    /** @return array{int, string} its modules to a side, and the path that fills the dark ones, in units of a module */
    public static function of(string $text): array
    {
        $matrix = Encoder::encode($text, ErrorCorrectionLevel::M(), 'UTF-8')->getMatrix();
        $side = $matrix->getWidth();
        $path = '';
        for ($y = 0; $y < $side; ++$y) {
            $x = 0;
            while ($x < $side) {
                $run = 0;
                while ($x + $run < $side && $matrix->get($x + $run, $y) === 1) {
                    ++$run;
                }
                if ($run > 0) {
                    $path .= \sprintf('M%d %dh%dv1h-%dz', $x + self::MARGIN, $y + self::MARGIN, $run, $run);
                }
                $x += $run + 1;
            }
        }

        return [$side + 2 * self::MARGIN, $path];
    }
}
