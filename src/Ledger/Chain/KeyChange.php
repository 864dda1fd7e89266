<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Verjuicer\Core\Proof\Statement;

/** A key of a site as the chain has it. */
final readonly class KeyChange
{
    /**
     * @param string|null $before the public key before it; null of the first
     * @param string $vouched the previous key's signature; empty if that key was lost
     * @param string $reason why it was changed
     * @param int $position of its link
     */
    public function __construct(
        public string $siteId,
        public string $publicKey,
        public ?string $before,
        public string $vouched,
        public string $reason,
        public int $position,
    ) {
    }

    public function isVouchedFor(): bool
    {
        return $this->before === null || Statement::isSignedBy(
            $this->before,
            Statement::key($this->siteId, $this->before, $this->publicKey),
            $this->vouched,
        );
    }
}
