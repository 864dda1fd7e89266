<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261207090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Imports that are looked at before they are asked for and can be stopped; whether the clock can be right, for health';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            ALTER TABLE import ADD digest CHAR(64) NOT NULL DEFAULT '', ADD asked_at TIMESTAMPTZ(0),
                ADD told_at TIMESTAMPTZ(0), ADD stopped_at TIMESTAMPTZ(0), ADD batch_id UUID REFERENCES batch
            SQL);
        $this->addSql('UPDATE import SET asked_at = at');
        $this->addSql(<<<'SQL'
            CREATE FUNCTION newest_link() RETURNS TIMESTAMPTZ
            LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp AS $$
                SELECT max(l.recorded_at) FROM site s, LATERAL (
                    SELECT recorded_at FROM chain_link WHERE site_id = s.id ORDER BY position DESC LIMIT 1) AS l
            $$
            SQL);
        $this->addSql('REVOKE ALL ON FUNCTION newest_link() FROM PUBLIC');
        $this->addSql('GRANT EXECUTE ON FUNCTION newest_link() TO verjuicer_app');
    }
}
