<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Tenancy;

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;

/**
 * Whose rows the database shows: those of one site, and where else somebody works. Everything that reads or writes goes
 * through here first; the policies of the tables, which read what is set here, are the wall behind it.
 */
final class Tenant
{
    private ?Uuid $site = null;
    private ?Uuid $person = null;

    public function __construct(private readonly Connection $connection)
    {
    }

    public function site(): ?Uuid
    {
        return $this->site;
    }

    public function enter(Uuid $site, ?Uuid $person = null): void
    {
        $this->see($site, $person);
    }

    /** Before it is known in which of their sites somebody will be. */
    public function recognise(Uuid $person): void
    {
        $this->see(null, $person);
    }

    /** For whoever holds the secret of one thing: that is all there is to see, until its site is entered. */
    public function hold(string $tokenHash): void
    {
        $this->connection->executeStatement("SELECT set_config('verjuicer.token', ?, false)", [$tokenHash]);
    }

    /**
     * @template T
     *
     * @param \Closure(): T $do
     *
     * @return T what it gives, once the site that was entered before is entered again
     */
    public function within(Uuid $site, \Closure $do): mixed
    {
        [$before, $person] = [$this->site, $this->person];
        $this->see($site, $person);
        try {
            return $do();
        } finally {
            $this->see($before, $person);
        }
    }

    private function see(?Uuid $site, ?Uuid $person): void
    {
        $this->connection->executeStatement(
            "SELECT set_config('verjuicer.site', ?, false), set_config('verjuicer.person', ?, false)",
            [$site?->toRfc4122() ?? '', $person?->toRfc4122() ?? ''],
        );
        $this->site = $site;
        $this->person = $person;
    }
}
