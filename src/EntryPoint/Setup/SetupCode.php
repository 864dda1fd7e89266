<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Setup;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Platform\Now;

/** The one-time code that opens the set-up page: printed on the operator's console, and void once there is a site. */
final readonly class SetupCode
{
    private const LETTERS = 'ABCDEFGHJKMNPQRSTVWXYZ23456789';
    private const LENGTH = 12;
    private const HOURS = 24;

    public function __construct(private Connection $connection, private Now $now)
    {
    }

    /** Whether no site of anybody's own is there yet; the demo is for practice. */
    public function isOpen(): bool
    {
        return $this->connection->fetchOne('SELECT has_own_site()') === false;
    }

    /** A new one in place of those before. */
    public function make(): string
    {
        $code = '';
        for ($place = 0; $place < self::LENGTH; ++$place) {
            $code .= self::LETTERS[random_int(0, \strlen(self::LETTERS) - 1)];
        }
        $this->connection->transactional(function () use ($code): void {
            $this->connection->executeStatement('DELETE FROM setup_code');
            $this->connection->insert('setup_code', [
                'hash' => self::hash($code),
                'until' => gmdate('c', $this->now->instant()->epoch + 3600 * self::HOURS),
            ]);
        });

        return implode('-', str_split($code, 4));
    }

    public function isRight(string $given): bool
    {
        return $this->connection->fetchOne(
            'SELECT 1 FROM setup_code WHERE hash = ? AND until > ?',
            [self::hash($given), $this->now->instant()->rfc3339()],
        ) !== false;
    }

    public function forget(): void
    {
        $this->connection->executeStatement('DELETE FROM setup_code');
    }

    private static function hash(string $code): string
    {
        return hash('sha256', preg_replace('/[^A-Z0-9]/', '', strtoupper($code)) ?? '');
    }
}
