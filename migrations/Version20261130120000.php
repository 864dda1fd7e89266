<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261130120000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'How the last backup, drill and walk along the chain went';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE machine_state (
                what TEXT PRIMARY KEY CHECK (what IN ('backup', 'drill', 'verify')),
                at TIMESTAMPTZ(0) NOT NULL,
                is_good BOOLEAN NOT NULL,
                words TEXT NOT NULL
            )
            SQL);
        $this->addSql('GRANT SELECT ON machine_state TO verjuicer_app');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException('Records are never removed.');
    }
}
