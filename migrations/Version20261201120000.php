<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261201120000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Forecasts as they were stated, and what became of them';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE forecast_kept (
                site_id UUID NOT NULL REFERENCES site,
                batch_id UUID NOT NULL REFERENCES batch,
                what TEXT NOT NULL,
                slot BIGINT NOT NULL,
                track TEXT,
                towards DOUBLE PRECISION NOT NULL,
                stated_at TIMESTAMPTZ(0) NOT NULL,
                earliest TIMESTAMPTZ(0) NOT NULL,
                likely TIMESTAMPTZ(0),
                latest TIMESTAMPTZ(0),
                came_at TIMESTAMPTZ(0),
                is_over BOOLEAN NOT NULL DEFAULT false,
                PRIMARY KEY (batch_id, what, slot)
            )
            SQL);
        $this->addSql('CREATE INDEX forecast_kept_of ON forecast_kept (site_id, stated_at)');
        $this->addSql('CREATE INDEX forecast_kept_open ON forecast_kept (batch_id) WHERE NOT is_over');
        $this->addSql('ALTER TABLE forecast_kept ENABLE ROW LEVEL SECURITY');
        $this->addSql("CREATE POLICY of_site ON forecast_kept USING (site_id = nullif(current_setting('verjuicer.site', true), '')::uuid)");
        $this->addSql('GRANT SELECT, INSERT, UPDATE ON forecast_kept TO verjuicer_app');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE forecast_kept');
    }
}
