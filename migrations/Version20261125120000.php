<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261125120000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'After the pit: portions of batches, hot-holding units, labels, and who has taken on what is due';
    }

    public function up(Schema $schema): void
    {
        // A portion shares its parent's events up to the one that divided it.
        $this->addSql(<<<'SQL'
            ALTER TABLE batch
                ADD parent_id UUID REFERENCES batch,
                ADD shares_up_to BIGINT,
                ADD portion_grams INT CHECK (portion_grams > 0),
                ADD container TEXT,
                ADD depth_mm INT CHECK (depth_mm > 0),
                ADD CHECK ((parent_id IS NULL) = (shares_up_to IS NULL))
            SQL);
        $this->addSql('CREATE INDEX batch_parent ON batch (parent_id) WHERE parent_id IS NOT NULL');
        $this->addSql(<<<'SQL'
            CREATE TABLE hold_unit (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                name TEXT NOT NULL,
                kind TEXT NOT NULL,
                check_minutes INT NOT NULL CHECK (check_minutes BETWEEN 5 AND 240),
                UNIQUE (site_id, name)
            )
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE label (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                batch_id UUID NOT NULL REFERENCES batch,
                account_id UUID NOT NULL REFERENCES account,
                at TIMESTAMPTZ(0) NOT NULL,
                svg TEXT NOT NULL
            )
            SQL);
        $this->addSql('CREATE INDEX label_of ON label (site_id, at)');
        $this->addSql(<<<'SQL'
            CREATE TABLE claim (
                batch_id UUID NOT NULL REFERENCES batch,
                rule TEXT NOT NULL,
                account_id UUID NOT NULL REFERENCES account,
                at TIMESTAMPTZ(0) NOT NULL,
                PRIMARY KEY (batch_id, rule)
            )
            SQL);
        foreach (['label'] as $table) {
            $this->addSql("CREATE TRIGGER {$table}_only_added BEFORE UPDATE OR DELETE ON {$table} FOR EACH ROW EXECUTE FUNCTION refuse_change()");
        }
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException('Records are never removed.');
    }
}
