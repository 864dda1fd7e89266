<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261206180000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Written procedures, who is trained on them, their scans; what is done to a product so that it keeps';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE product ADD treatments JSON NOT NULL DEFAULT '[]'");
        $this->addSql('ALTER TABLE batch ADD treatments JSONB');
        // Not left out of what is kept of a packet: which file it was is in the chain.
        $this->addSql('ALTER TABLE packet ADD sha256 CHAR(64)');
        // Columns added later are in the canonical form only where they say something; of a scan its digest is, not its bytes.
        $this->addSql(<<<'SQL'
            CREATE OR REPLACE FUNCTION chain_canonical(of_kind TEXT, of_id UUID) RETURNS TEXT LANGUAGE plpgsql STABLE SET timezone = 'UTC' AS $$
            DECLARE canonical JSONB; added TEXT;
            BEGIN
                IF of_kind = 'procedure_scan' THEN
                    SELECT to_jsonb(t) - 'content' INTO canonical FROM procedure_scan t WHERE t.id = of_id;
                    RETURN canonical::text;
                END IF;
                EXECUTE format('SELECT to_jsonb(t) FROM %I t WHERE t.id = $1', of_kind) INTO canonical USING of_id;
                FOREACH added IN ARRAY CASE of_kind
                    WHEN 'batch' THEN ARRAY['piece_numbers', 'treatments']
                    WHEN 'day_sign' THEN ARRAY['until', 'breaks']
                    ELSE ARRAY[]::TEXT[]
                END LOOP
                    IF canonical->added = 'null'::jsonb THEN
                        canonical := canonical - added;
                    END IF;
                END LOOP;
                RETURN canonical::text;
            END
            $$
            SQL);
        $this->recorded('procedure_version', <<<'SQL'
            id UUID PRIMARY KEY,
            site_id UUID NOT NULL REFERENCES site,
            kind VARCHAR(24) NOT NULL,
            number TEXT NOT NULL,
            version INTEGER NOT NULL,
            body TEXT NOT NULL,
            in_force_from TIMESTAMPTZ(0),
            is_withdrawn BOOLEAN NOT NULL,
            approved_by TEXT NOT NULL,
            approved_on DATE,
            approval_number TEXT NOT NULL,
            reason TEXT NOT NULL,
            account_id UUID NOT NULL REFERENCES account,
            initials VARCHAR(8) NOT NULL,
            recorded_at TIMESTAMPTZ(0) NOT NULL,
            seq BIGINT GENERATED ALWAYS AS IDENTITY,
            UNIQUE (site_id, kind, version)
            SQL);
        $this->recorded('procedure_training', <<<'SQL'
            id UUID PRIMARY KEY,
            site_id UUID NOT NULL REFERENCES site,
            version_id UUID NOT NULL REFERENCES procedure_version,
            account_id UUID NOT NULL REFERENCES account,
            initials VARCHAR(8) NOT NULL,
            recorded_at TIMESTAMPTZ(0) NOT NULL,
            UNIQUE (version_id, account_id)
            SQL);
        $this->recorded('procedure_scan', <<<'SQL'
            id UUID PRIMARY KEY,
            site_id UUID NOT NULL REFERENCES site,
            version_id UUID NOT NULL REFERENCES procedure_version,
            name TEXT NOT NULL,
            type TEXT NOT NULL,
            sha256 CHAR(64) NOT NULL,
            content BYTEA NOT NULL,
            account_id UUID NOT NULL REFERENCES account,
            initials VARCHAR(8) NOT NULL,
            recorded_at TIMESTAMPTZ(0) NOT NULL
            SQL);
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException('Records are never removed.');
    }

    private function recorded(string $table, string $columns): void
    {
        $this->addSql("CREATE TABLE $table ($columns)");
        $this->addSql("ALTER TABLE $table ENABLE ROW LEVEL SECURITY");
        $this->addSql("CREATE POLICY of_site ON $table USING (site_id = nullif(current_setting('verjuicer.site', true), '')::uuid)");
        $this->addSql("GRANT SELECT, INSERT ON $table TO verjuicer_app");
        $this->addSql("CREATE TRIGGER {$table}_chained AFTER INSERT ON $table FOR EACH ROW EXECUTE FUNCTION chain_row('recorded_at')");
        $this->addSql("CREATE TRIGGER {$table}_only_added BEFORE UPDATE OR DELETE ON $table FOR EACH ROW EXECUTE FUNCTION refuse_change()");
        $this->addSql("CREATE TRIGGER {$table}_never_emptied BEFORE TRUNCATE ON $table FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()");
    }
}
