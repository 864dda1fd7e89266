<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261130180000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'What people did beside the record: logged in, took data out, shared packets, opened them';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE people_log (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                account_id UUID REFERENCES account,
                at TIMESTAMPTZ(0) NOT NULL,
                what TEXT NOT NULL,
                about TEXT NOT NULL,
                address TEXT NOT NULL
            )
            SQL);
        $this->addSql('CREATE INDEX people_log_of ON people_log (site_id, at, id)');
        $this->addSql('ALTER TABLE people_log ENABLE ROW LEVEL SECURITY');
        $this->addSql("CREATE POLICY of_site ON people_log USING (site_id = nullif(current_setting('verjuicer.site', true), '')::uuid)");
        $this->addSql('GRANT SELECT, INSERT ON people_log TO verjuicer_app');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException('Records are never removed.');
    }
}
