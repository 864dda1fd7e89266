<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261128000000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'What a day sheet said when it was signed; the pieces a portion holds';
    }

    public function up(Schema $schema): void
    {
        $this->said();
        $this->pieces();
        $this->facts();
        $this->addSql(<<<'SQL'
            CREATE TABLE cook_template (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                name TEXT NOT NULL,
                lines JSON NOT NULL,
                is_retired BOOLEAN NOT NULL
            )
            SQL);
        // What goes on without a recipe has no amount on a kilogram.
        $this->addSql('ALTER TABLE recipe DROP CONSTRAINT recipe_grams_per_kg_check, ADD CHECK (grams_per_kg >= 0)');
        $this->addSql('CREATE INDEX site_event_at ON site_event (subject_id, at)');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException('Records are never removed.');
    }

    private function said(): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE day_said (
                id UUID PRIMARY KEY REFERENCES day_sign,
                site_id UUID NOT NULL REFERENCES site,
                at TIMESTAMPTZ(0) NOT NULL,
                batches JSONB NOT NULL
            )
            SQL);
        $this->keep('day_said', 'at');
    }

    /** Chained to the rows before, and only ever added to. */
    private function keep(string $table, string $moment): void
    {
        $this->addSql("CREATE TRIGGER {$table}_chained AFTER INSERT ON $table FOR EACH ROW EXECUTE FUNCTION chain_row('$moment')");
        $this->addSql("CREATE TRIGGER {$table}_only_added BEFORE UPDATE OR DELETE ON $table FOR EACH ROW EXECUTE FUNCTION refuse_change()");
        $this->addSql("CREATE TRIGGER {$table}_never_emptied BEFORE TRUNCATE ON $table FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()");
    }

    private function facts(): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE batch_fact (
                id UUID PRIMARY KEY,
                seq BIGINT GENERATED ALWAYS AS IDENTITY UNIQUE,
                site_id UUID NOT NULL REFERENCES site,
                batch_id UUID NOT NULL REFERENCES batch,
                recorded_at TIMESTAMPTZ(0) NOT NULL,
                account_id UUID NOT NULL REFERENCES account,
                initials TEXT NOT NULL,
                facts JSONB NOT NULL,
                reason TEXT NOT NULL
            )
            SQL);
        $this->addSql('CREATE INDEX batch_fact_of ON batch_fact (batch_id, seq)');
        $this->keep('batch_fact', 'recorded_at');
    }

    private function pieces(): void
    {
        $this->addSql('ALTER TABLE batch ADD piece_numbers JSONB');
        // A column added later is in the canonical form only where it says something: links made before it stay what they are.
        $this->addSql(<<<'SQL'
            CREATE OR REPLACE FUNCTION chain_canonical(of_kind TEXT, of_id UUID) RETURNS TEXT LANGUAGE plpgsql STABLE SET timezone = 'UTC' AS $$
            DECLARE canonical JSONB;
            BEGIN
                EXECUTE format('SELECT to_jsonb(t) FROM %I t WHERE t.id = $1', of_kind) INTO canonical USING of_id;
                IF of_kind = 'batch' AND canonical->'piece_numbers' = 'null'::jsonb THEN
                    canonical := canonical - 'piece_numbers';
                END IF;
                RETURN canonical::text;
            END
            $$
            SQL);
    }
}
