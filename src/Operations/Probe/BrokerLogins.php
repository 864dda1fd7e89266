<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Doctrine\DBAL\Connection;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Filesystem\Exception\IOException;
use Symfony\Component\Filesystem\Filesystem;

/**
 * Who may log in to this machine's broker: the application and every active sensor of every site. Stored in
 * MQTT_DIR/passwords. Which topics they may use is set by `write_broker` in deploy/serving.sh.
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
     * Writes the logins if they changed, and tells the broker to reload them. It then disconnects revoked sensors.
     *
     * @return bool whether they changed; false if the broker runs on another machine
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
