<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Tenancy;

use Doctrine\Bundle\DoctrineBundle\Attribute\AsMiddleware;
use Doctrine\DBAL\Driver;
use Doctrine\DBAL\Driver\Connection;
use Doctrine\DBAL\Driver\Exception;
use Doctrine\DBAL\Driver\Middleware;
use Doctrine\DBAL\Driver\Middleware\AbstractDriverMiddleware;
use Symfony\Component\DependencyInjection\Attribute\When;

/** A connection is kept from one request to the next: the next sees nothing of the site of the one before. */
#[AsMiddleware]
#[When('prod')]
final class ResetTenantMiddleware implements Middleware
{
    public function wrap(Driver $driver): Driver
    {
        return new class($driver) extends AbstractDriverMiddleware {
            public function connect(array $params): Connection
            {
                try {
                    $connection = parent::connect($params);
                    $connection->exec(ResetTenantMiddleware::settings());
                } catch (Exception) {
                    // One that was kept while the database was away shows it only when it is used.
                    $connection = parent::connect($params);
                    $connection->exec(ResetTenantMiddleware::settings());
                }

                return $connection;
            }
        };
    }

    /** A page waits neither for long nor for ever; the worker and the console take the time they need. */
    public static function settings(): string
    {
        $values = ['verjuicer.site' => '', 'verjuicer.person' => '', 'verjuicer.token' => '', 'verjuicer.seal' => ''];
        if (\PHP_SAPI !== 'cli') {
            $values += [
                'statement_timeout' => '25s',
                'lock_timeout' => '5s',
                'idle_in_transaction_session_timeout' => '60s',
            ];
        }
        $set = [];
        foreach ($values as $name => $value) {
            $set[] = "set_config('$name', '$value', false)";
        }

        return 'SELECT '.implode(', ', $set);
    }
}
