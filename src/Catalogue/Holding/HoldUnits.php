<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Holding;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Verjuicer\App\Site\Site\Site;

/** The hot-holding units of a site. */
final readonly class HoldUnits
{
    public function __construct(private EntityManagerInterface $entities, private Connection $connection)
    {
    }

    /** @return list<HoldUnit> */
    public function of(Site $site): array
    {
        return $this->entities->getRepository(HoldUnit::class)->findBy(['site' => $site], ['name' => 'ASC']);
    }

    public function named(Site $site, string $name): ?HoldUnit
    {
        foreach ($this->of($site) as $unit) {
            if (mb_strtolower($unit->name) === mb_strtolower($name)) {
                return $unit;
            }
        }

        return null;
    }

    /** @return array<string, int> minutes between checks, by name */
    public function intervals(Site $site): array
    {
        /** @var array<string, int> */
        return $this->connection->fetchAllKeyValue('SELECT name, check_minutes FROM hold_unit WHERE site_id = ?', [
            $site->id->toRfc4122(),
        ]);
    }
}
