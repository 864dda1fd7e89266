<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261214090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'A clock that is set while the machine runs shows at once';
    }

    public function up(Schema $schema): void
    {
        // When a machine was started by the clock that a site trusts, by the start it was.
        $this->addSql(<<<'SQL'
            CREATE TABLE machine_clock (
                site_id UUID NOT NULL REFERENCES site,
                boot UUID NOT NULL,
                started_at TIMESTAMPTZ(0) NOT NULL,
                PRIMARY KEY (site_id, boot)
            )
            SQL);
        $this->addSql('ALTER TABLE machine_clock ENABLE ROW LEVEL SECURITY');
        $this->addSql("CREATE POLICY of_site ON machine_clock USING (site_id = nullif(current_setting('verjuicer.site', true), '')::uuid)");
        $this->addSql('GRANT SELECT, INSERT, UPDATE ON machine_clock TO verjuicer_app');
        // Of all sites, for whoever watches the machine: by how many seconds the clock was set since it was trusted.
        $this->addSql(<<<'SQL'
            CREATE FUNCTION clock_set_by(of_boot UUID, started TIMESTAMPTZ) RETURNS BIGINT
            LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp AS $$
                SELECT coalesce(max(abs(extract(epoch FROM started - started_at)))::bigint, 0)
                FROM machine_clock WHERE boot = of_boot
            $$
            SQL);
        $this->addSql('REVOKE ALL ON FUNCTION clock_set_by(UUID, TIMESTAMPTZ) FROM PUBLIC');
        $this->addSql('GRANT EXECUTE ON FUNCTION clock_set_by(UUID, TIMESTAMPTZ) TO verjuicer_app');
    }
}
