<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Label;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Process\Process;

/** A QR code as an SVG path, made by the package that ships with the interface. */
final readonly class QrCode
{
    private const SECONDS = 10;

    public function __construct(#[Autowire('%kernel.project_dir%')] private string $folder)
    {
    }

    /**
     * @return array{int, string} its modules to a side, and the path that draws them in units of a module
     *
     * @throws \RuntimeException if it cannot be made
     */
    public function of(string $text): array
    {
        $process = new Process(['node', 'deploy/qr.mjs', $text], $this->folder, timeout: self::SECONDS);
        $process->mustRun();
        if (preg_match('/viewBox="0 0 (\d+) \d+".*<path stroke="#000000" d="([^"]+)"/s', $process->getOutput(), $part) !== 1) {
            throw new \RuntimeException('The QR code has another shape than expected.');
        }

        return [(int) $part[1], $part[2]];
    }
}
