<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261212090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Each change of what may be changed has an author, signed with the key of the site';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE row_author (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                kept_id UUID NOT NULL REFERENCES row_kept,
                account_id UUID REFERENCES account,
                initials VARCHAR(8) NOT NULL,
                signature CHAR(128) NOT NULL,
                recorded_at TIMESTAMPTZ(0) NOT NULL
            )
            SQL);
        $this->addSql('CREATE INDEX row_author_of ON row_author (kept_id)');
        $this->addSql('ALTER TABLE row_author ENABLE ROW LEVEL SECURITY');
        $this->addSql("CREATE POLICY of_site ON row_author USING (site_id = nullif(current_setting('verjuicer.site', true), '')::uuid)");
        $this->addSql('GRANT SELECT, INSERT ON row_author TO verjuicer_app');
        $this->addSql("CREATE TRIGGER row_author_chained AFTER INSERT ON row_author FOR EACH ROW EXECUTE FUNCTION chain_row('recorded_at')");
        $this->addSql('CREATE TRIGGER row_author_only_added BEFORE UPDATE OR DELETE ON row_author FOR EACH ROW EXECUTE FUNCTION refuse_change()');
        $this->addSql('CREATE TRIGGER row_author_never_emptied BEFORE TRUNCATE ON row_author FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()');
    }
}
