<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261125180000 extends AbstractMigration
{
    /** What is recorded, and the column its moment of recording is in. */
    private const TABLES = ['batch' => 'begun_at', 'event' => 'recorded_at', 'site_event' => 'recorded_at', 'lot' => 'recorded_at', 'thermometer_check' => 'recorded_at', 'day_sign' => 'at'];

    public function getDescription(): string
    {
        return 'The chain that shows whether anything recorded was altered, and the signatures of days';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE chain_link (
                site_id UUID NOT NULL REFERENCES site,
                position BIGINT NOT NULL,
                kind TEXT NOT NULL,
                row_id UUID NOT NULL,
                recorded_at TIMESTAMPTZ(0) NOT NULL,
                hash BYTEA NOT NULL,
                PRIMARY KEY (site_id, position),
                UNIQUE (kind, row_id)
            )
            SQL);
        $this->addSql('CREATE INDEX chain_link_recorded ON chain_link (site_id, recorded_at)');
        $this->addSql(<<<'SQL'
            CREATE TABLE day_sign (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                day DATE NOT NULL,
                at TIMESTAMPTZ(0) NOT NULL,
                account_id UUID NOT NULL REFERENCES account,
                initials TEXT NOT NULL,
                position BIGINT NOT NULL,
                digest TEXT NOT NULL,
                reasons JSONB NOT NULL
            )
            SQL);
        $this->addSql('CREATE INDEX day_sign_of ON day_sign (site_id, day)');
        // The canonical form of a row is its JSON with the times in UTC; jsonb orders its members by itself.
        $this->addSql(<<<'SQL'
            CREATE FUNCTION chain_canonical(of_kind TEXT, of_id UUID) RETURNS TEXT LANGUAGE plpgsql STABLE SET timezone = 'UTC' AS $$
            DECLARE canonical TEXT;
            BEGIN
                EXECUTE format('SELECT to_jsonb(t)::text FROM %I t WHERE t.id = $1', of_kind) INTO canonical USING of_id;
                RETURN canonical;
            END
            $$
            SQL);
        $this->addSql(<<<'SQL'
            CREATE FUNCTION chain_add(of_site UUID, of_kind TEXT, of_id UUID, recorded TIMESTAMPTZ) RETURNS void LANGUAGE plpgsql AS $$
            DECLARE last RECORD;
            BEGIN
                -- One writer a site at a time until it commits: the chain is in the order of commits.
                PERFORM 1 FROM site WHERE id = of_site FOR NO KEY UPDATE;
                SELECT position, hash INTO last FROM chain_link l WHERE l.site_id = of_site ORDER BY position DESC LIMIT 1;
                INSERT INTO chain_link VALUES (of_site, coalesce(last.position, 0) + 1, of_kind, of_id, recorded,
                    sha256(coalesce(last.hash, ''::bytea) || convert_to(chain_canonical(of_kind, of_id), 'UTF8')));
            END
            $$
            SQL);
        $this->addSql(<<<'SQL'
            CREATE FUNCTION chain_row() RETURNS trigger LANGUAGE plpgsql AS $$
            DECLARE of_site UUID; recorded TIMESTAMPTZ;
            BEGIN
                CASE TG_TABLE_NAME
                    WHEN 'event' THEN SELECT b.site_id INTO of_site FROM batch b WHERE b.id = NEW.batch_id;
                    WHEN 'thermometer_check' THEN SELECT t.site_id INTO of_site FROM thermometer t WHERE t.id = NEW.thermometer_id;
                    ELSE of_site := (to_jsonb(NEW)->>'site_id')::uuid;
                END CASE;
                recorded := (to_jsonb(NEW)->>TG_ARGV[0])::timestamptz;
                PERFORM chain_add(of_site, TG_TABLE_NAME, NEW.id, recorded);
                RETURN NULL;
            END
            $$
            SQL);
        foreach (self::TABLES as $table => $column) {
            $this->addSql("CREATE TRIGGER {$table}_chained AFTER INSERT ON {$table} FOR EACH ROW EXECUTE FUNCTION chain_row('{$column}')");
        }
        // What was recorded before there was a chain, in the order it was recorded.
        $this->addSql(<<<'SQL'
            DO $$
            DECLARE r RECORD;
            BEGIN
                FOR r IN SELECT * FROM (
                    SELECT site_id, 'batch' AS kind, id, begun_at AS recorded, 0 AS seq FROM batch
                    UNION ALL SELECT site_id, 'lot', id, recorded_at, 0 FROM lot
                    UNION ALL SELECT site_id, 'site_event', id, recorded_at, seq FROM site_event
                    UNION ALL SELECT b.site_id, 'event', e.id, e.recorded_at, e.seq FROM event e JOIN batch b ON b.id = e.batch_id
                    UNION ALL SELECT t.site_id, 'thermometer_check', c.id, c.recorded_at, c.seq FROM thermometer_check c JOIN thermometer t ON t.id = c.thermometer_id
                ) AS all_rows ORDER BY recorded, kind, seq LOOP
                    PERFORM chain_add(r.site_id, r.kind, r.id, r.recorded);
                END LOOP;
            END
            $$
            SQL);
        foreach (['chain_link', 'day_sign'] as $table) {
            $this->addSql("CREATE TRIGGER {$table}_only_added BEFORE UPDATE OR DELETE ON {$table} FOR EACH ROW EXECUTE FUNCTION refuse_change()");
            $this->addSql("CREATE TRIGGER {$table}_never_emptied BEFORE TRUNCATE ON {$table} FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()");
        }
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException('Records are never removed.');
    }
}
