<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Thermometer;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\Site\Site;

/** The register of thermometers of a site. */
final readonly class Thermometers
{
    public function __construct(private Connection $connection, private EntityManagerInterface $entities)
    {
    }

    /** @return list<Thermometer> those in use first */
    public function of(Site $site): array
    {
        $order = ['retiredAt' => 'DESC', 'label' => 'ASC'];

        return $this->entities->getRepository(Thermometer::class)->findBy(['site' => $site], $order);
    }

    public function find(Site $site, string $id): ?Thermometer
    {
        $thermometer = Uuid::isValid($id) ? $this->entities->find(Thermometer::class, Uuid::fromString($id)) : null;

        return $thermometer !== null && $thermometer->site->id->equals($site->id) ? $thermometer : null;
    }

    /** @return list<string> labels of hand thermometers in use, without sensor channels */
    public function handLabels(Site $site): array
    {
        /** @var list<string> */
        return $this->connection->fetchFirstColumn(
            'SELECT label FROM thermometer t WHERE site_id = ? AND retired_at IS NULL
               AND NOT EXISTS (SELECT 1 FROM sensor_channel c WHERE c.thermometer_id = t.id) ORDER BY label',
            [$site->id->toRfc4122()],
        );
    }

    /** @return list<string> of those in use */
    public function labels(Site $site): array
    {
        /** @var list<string> */
        return $this->connection->fetchFirstColumn(
            'SELECT label FROM thermometer WHERE site_id = ? AND retired_at IS NULL ORDER BY label',
            [$site->id->toRfc4122()],
        );
    }
}
