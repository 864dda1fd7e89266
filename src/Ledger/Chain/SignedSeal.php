<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Proof\Statement;

/** The digest of a site's chain at a moment, signed with the key of the site. */
final readonly class SignedSeal
{
    /** @param int $at seconds since 1970 */
    private function __construct(
        public string $siteId,
        public int $position,
        public string $digest,
        public int $at,
        public string $signature,
    ) {
    }

    public static function of(Site $site, Seal $seal, int $at, SiteKeys $keys): self
    {
        $unsigned = new self($site->id->toRfc4122(), $seal->position, $seal->digest, $at, '');

        return new self(
            $unsigned->siteId,
            $unsigned->position,
            $unsigned->digest,
            $at,
            $keys->sign($site, $unsigned->message()),
        );
    }

    /** The signed bytes. */
    public function message(): string
    {
        return Statement::seal($this->siteId, $this->position, $this->digest, $this->at);
    }

    public function line(): string
    {
        return "{$this->siteId} {$this->position} {$this->digest} {$this->at} {$this->signature}";
    }

    public static function read(string $line): ?self
    {
        $form = '/^([0-9a-f-]{36}) (\d{1,18}) ([0-9a-f]{64}) (\d{1,12}) ([0-9a-f]{128})$/D';

        return preg_match($form, $line, $part) === 1
            ? new self($part[1], (int) $part[2], $part[3], (int) $part[4], $part[5])
            : null;
    }
}
