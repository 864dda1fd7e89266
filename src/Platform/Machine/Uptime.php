<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Machine;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Verjuicer\Core\Measure\Instant;

/**
 * The machine's boot time: its clock minus its uptime, which cannot be set. It stays the same until the clock is set. A
 * simulated or back-dated kitchen does not change it.
 */
final readonly class Uptime
{
    /** @param string $folder where Linux tells of itself; empty where nothing is to be asked */
    public function __construct(#[Autowire(env: 'VERJUICER_PROC')] private string $folder)
    {
    }

    /** Which start of the machine this is; null where it does not tell. */
    public function boot(): ?string
    {
        $said = trim($this->read('sys/kernel/random/boot_id'));

        return preg_match('/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/D', $said) === 1 ? $said : null;
    }

    /** Seconds that the machine has run; null where it does not tell. */
    public function seconds(): ?int
    {
        return preg_match('/^(\d+)\.\d+ /', $this->read('uptime'), $part) === 1 ? (int) $part[1] : null;
    }

    /** Null where it does not tell. */
    public function startedAt(): ?Instant
    {
        $seconds = $this->seconds();

        return $seconds === null ? null : Instant::ofEpoch(time() - $seconds);
    }

    private function read(string $file): string
    {
        return $this->folder === '' ? '' : (string) @file_get_contents($this->folder.'/'.$file);
    }
}
