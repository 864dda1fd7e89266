<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Tenancy;

use Doctrine\Bundle\DoctrineBundle\Attribute\AsMiddleware;
use Doctrine\DBAL\Driver;
use Doctrine\DBAL\Driver\Connection;
use Doctrine\DBAL\Driver\Middleware;
use Doctrine\DBAL\Driver\Middleware\AbstractDriverMiddleware;
use Symfony\Component\DependencyInjection\Attribute\When;

/** A connection is kept from one request to the next: the next sees nothing of the site of the one before. */
#[AsMiddleware]
#[When('prod')]
final class NobodyYet implements Middleware
{
    public function wrap(Driver $driver): Driver
    {
        return new class($driver) extends AbstractDriverMiddleware {
            public function connect(array $params): Connection
            {
                $connection = parent::connect($params);
                $connection->exec(
                    "SELECT set_config('verjuicer.site', '', false), set_config('verjuicer.person', '', false), "
                    ."set_config('verjuicer.token', '', false)",
                );

                return $connection;
            }
        };
    }
}
