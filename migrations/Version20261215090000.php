<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261215090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'A database that was put back says so in its chain';
    }

    public function up(Schema $schema): void
    {
        // Up to which link it was put back, and which link it had come to before.
        $this->addSql(<<<'SQL'
            CREATE TABLE chain_rollback (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                kept_position BIGINT NOT NULL,
                cut_position BIGINT NOT NULL,
                cut_digest CHAR(64) NOT NULL,
                saved_at TIMESTAMPTZ(0) NOT NULL,
                signature CHAR(128) NOT NULL,
                recorded_at TIMESTAMPTZ(0) NOT NULL
            )
            SQL);
        $this->addSql('ALTER TABLE chain_rollback ENABLE ROW LEVEL SECURITY');
        $this->addSql("CREATE POLICY of_site ON chain_rollback USING (site_id = nullif(current_setting('verjuicer.site', true), '')::uuid)");
        $this->addSql('GRANT SELECT, INSERT ON chain_rollback TO verjuicer_app');
        $this->addSql("CREATE TRIGGER chain_rollback_chained AFTER INSERT ON chain_rollback FOR EACH ROW EXECUTE FUNCTION chain_row('recorded_at')");
        $this->addSql('CREATE TRIGGER chain_rollback_only_added BEFORE UPDATE OR DELETE ON chain_rollback FOR EACH ROW EXECUTE FUNCTION refuse_change()');
        $this->addSql('CREATE TRIGGER chain_rollback_never_emptied BEFORE TRUNCATE ON chain_rollback FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()');
    }
}
