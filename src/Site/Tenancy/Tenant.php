<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Tenancy;

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;

/**
 * The current tenant of the database connection: the rows of one site, and the list of the person's other sites. All
 * reads and writes go through here first; the row-level policies of the tables, which use its settings, are the second
 * barrier.
 */
final class Tenant
{
    private ?Uuid $site = null;
    private ?Uuid $person = null;
    private string $token = '';

    public function __construct(private readonly Connection $connection, private readonly TenancyKey $key)
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

    /** Before the person's site is chosen. */
    public function recognise(Uuid $person): void
    {
        $this->see(null, $person);
    }

    /**
     * Shows only the row that this secret or login belongs to, until its site is entered.
     *
     * @param string $token the digest of the secret, or the login in small letters
     */
    public function hold(string $token): void
    {
        $this->token = $token;
        $this->see($this->site, $this->person);
    }

    /** Whether the database accepts this application's seal: it was migrated with the same APP_SECRET. */
    public function isTrusted(): bool
    {
        $site = Uuid::v4();

        return $this->within(
            $site,
            fn (): bool => $this->connection->fetchOne('SELECT tenant_site()') === $site->toRfc4122(),
        );
    }

    /**
     * @template T
     *
     * @param \Closure(): T $do
     *
     * @return T the callback's result, after the previous site is entered again
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
        $settings = [$site?->toRfc4122() ?? '', $person?->toRfc4122() ?? '', $this->token];
        $this->connection->executeStatement(
            "SELECT set_config('verjuicer.site', ?, false), set_config('verjuicer.person', ?, false),
                set_config('verjuicer.token', ?, false), set_config('verjuicer.seal', ?, false)",
            [...$settings, $this->key->seal(...$settings)],
        );
        $this->site = $site;
        $this->person = $person;
    }
}
