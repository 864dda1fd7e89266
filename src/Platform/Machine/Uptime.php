<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Machine;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Verjuicer\Core\Measure\Instant;

/**
 * When this machine was started, by the clock on its wall less the time it has run, which nobody sets: it stays the
 * same until the clock is set.
 */
final readonly class Uptime
{
    /**
     * @param string $folder where Linux tells of itself; empty where nothing is to be asked
     * @param string|null $played a clock that is played, which the machine's does not follow
     */
    public function __construct(
        #[Autowire(env: 'VERJUICER_PROC')] private string $folder,
        #[Autowire('%env(default::PLAYED_CLOCK)%')] private ?string $played = null,
    ) {
    }

    /** Which start of the machine this is; null where it does not tell. */
    public function boot(): ?string
    {
        $said = trim($this->read('sys/kernel/random/boot_id'));

        return preg_match('/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/D', $said) === 1 ? $said : null;
    }

    /** Null where it does not tell. */
    public function startedAt(Instant $now): ?Instant
    {
        $said = $this->read('uptime');

        return preg_match('/^(\d+)\.\d+ /', $said, $part) === 1 ? Instant::ofEpoch($now->epoch - (int) $part[1]) : null;
    }

    private function read(string $file): string
    {
        if ($this->folder === '' || ($this->played ?? '') !== '') {
            return '';
        }

        return (string) @file_get_contents($this->folder.'/'.$file);
    }
}
