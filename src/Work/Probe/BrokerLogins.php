<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Probe;

use Doctrine\DBAL\Connection;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Filesystem\Exception\IOException;
use Symfony\Component\Filesystem\Filesystem;

/**
 * Who may log in at this machine's broker: the application, and each sensor that is in use, of every site. Kept in
 * `passwords` in MQTT_DIR; which topics they may use stands beside it (`write_broker` of deploy/serving.sh).
 */
final readonly class BrokerLogins
{
    public function __construct(
        private Connection $connection,
        #[Autowire(env: 'MQTT_URL')]
        private string $url,
        #[Autowire(env: 'MQTT_DIR')]
        private string $directory,
    ) {
    }

    /**
     * Writes them where they changed, and has the broker read them: it ends the connection of a sensor that was revoked.
     *
     * @return bool whether they changed; false, too, where the broker is not this machine's
     *
     * @throws IOException if the folder cannot be written to
     */
    public function write(): bool
    {
        if ($this->directory === '') {
            return false;
        }
        $lines = implode('', array_map(static fn (BrokerLogin $one): string => $one->line()."\n", $this->all()));
        $file = $this->directory.'/passwords';
        if (@file_get_contents($file) === $lines) {
            return false;
        }
        $files = new Filesystem();
        $files->dumpFile($file, $lines);
        $files->chmod($file, 0o600);
        $broker = (int) @file_get_contents($this->directory.'/mosquitto.pid');
        if ($broker > 1 && trim((string) @file_get_contents("/proc/$broker/comm")) === 'mosquitto') {
            posix_kill($broker, \SIGHUP);
        }

        return true;
    }

    /** @return list<BrokerLogin> */
    private function all(): array
    {
        $own = parse_url($this->url);
        $logins = \is_array($own) && isset($own['user'], $own['pass'])
            ? [new BrokerLogin(rawurldecode($own['user']), rawurldecode($own['pass']))]
            : [];
        /** @var list<array{name: string, password: string}> $rows */
        $rows = $this->connection->fetchAllAssociative('SELECT name, password FROM sensor_logins()');
        foreach ($rows as $row) {
            $logins[] = new BrokerLogin($row['name'], $row['password']);
        }

        return $logins;
    }
}
