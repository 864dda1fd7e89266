<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261125210000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Packets for inspectors, made in the background, and the links they are read by';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE packet (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                account_id UUID NOT NULL REFERENCES account,
                at TIMESTAMPTZ(0) NOT NULL,
                scope JSONB NOT NULL,
                paper TEXT NOT NULL CHECK (paper IN ('A4', 'Letter')),
                done INT NOT NULL DEFAULT 0,
                total INT,
                finished_at TIMESTAMPTZ(0),
                problem TEXT,
                pdf BYTEA,
                token_hash TEXT UNIQUE,
                expires_at TIMESTAMPTZ(0)
            )
            SQL);
        $this->addSql('CREATE INDEX packet_of ON packet (site_id, at)');
        $this->addSql("CREATE INDEX event_recipe ON event ((members->>'recipe')) WHERE members->>'recipe' IS NOT NULL");
        $this->addSql("CREATE INDEX event_thermometer ON event ((members->>'thermometer'), batch_id) WHERE type = 'reading'");
        $this->addSql('CREATE INDEX event_at ON event (at)');
        $this->addSql('CREATE INDEX batch_begun ON batch (site_id, begun_at)');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException('Records are never removed.');
    }
}
