<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261211090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'When each background process last ran, which instance leads; messages of sensors that could not be recorded';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE background_process (
                name TEXT PRIMARY KEY,
                holder TEXT NOT NULL,
                at TIMESTAMPTZ(0) NOT NULL,
                since TIMESTAMPTZ(0) NOT NULL,
                starts JSONB NOT NULL DEFAULT '[]'
            )
            SQL);
        $this->addSql('GRANT SELECT, INSERT, UPDATE ON background_process TO verjuicer_app');
        $this->addSql(<<<'SQL'
            CREATE TABLE dead_letter (
                site_id UUID NOT NULL REFERENCES site,
                sensor_id UUID NOT NULL REFERENCES sensor,
                digest CHAR(64) NOT NULL,
                came_by VARCHAR(8) NOT NULL,
                payload TEXT NOT NULL,
                problem TEXT NOT NULL,
                failures INTEGER NOT NULL DEFAULT 1,
                first_at TIMESTAMPTZ(0) NOT NULL,
                last_at TIMESTAMPTZ(0) NOT NULL,
                looked_at TIMESTAMPTZ(0),
                looked_at_by UUID REFERENCES account,
                PRIMARY KEY (sensor_id, digest)
            )
            SQL);
        $this->addSql('CREATE INDEX dead_letter_of ON dead_letter (site_id) WHERE looked_at IS NULL');
        $this->addSql('ALTER TABLE dead_letter ENABLE ROW LEVEL SECURITY');
        $this->addSql("CREATE POLICY of_site ON dead_letter USING (site_id = nullif(current_setting('verjuicer.site', true), '')::uuid)");
        $this->addSql('GRANT SELECT, INSERT, UPDATE ON dead_letter TO verjuicer_app');
        $this->addSql('ALTER TABLE sensor_fault ADD count INTEGER');
        // How far a clock is off can be more than an integer holds: a sensor that begins in 1900, say.
        $this->addSql('ALTER TABLE sensor ALTER COLUMN skew_seconds TYPE BIGINT');
    }
}
