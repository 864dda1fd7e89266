<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261206090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Links say where they stand and when; days as ranges, the clock, keys and what is in writing in the chain';
    }

    public function up(Schema $schema): void
    {
        $this->columns();
        $this->links();
        $this->recorded('day_close', <<<'SQL'
            id UUID PRIMARY KEY,
            site_id UUID NOT NULL REFERENCES site,
            day DATE NOT NULL,
            next_day DATE NOT NULL,
            first_position BIGINT NOT NULL,
            last_position BIGINT NOT NULL,
            digest TEXT NOT NULL,
            recorded_at TIMESTAMPTZ(0) NOT NULL,
            UNIQUE (site_id, last_position)
            SQL);
        $this->recorded('clock_word', <<<'SQL'
            id UUID PRIMARY KEY,
            site_id UUID NOT NULL REFERENCES site,
            account_id UUID NOT NULL REFERENCES account,
            initials VARCHAR(8) NOT NULL,
            last_at TIMESTAMPTZ(0) NOT NULL,
            reason TEXT NOT NULL,
            recorded_at TIMESTAMPTZ(0) NOT NULL
            SQL);
        $this->recorded('site_key', <<<'SQL'
            id UUID PRIMARY KEY,
            site_id UUID NOT NULL REFERENCES site,
            public_key CHAR(64) NOT NULL,
            before_key CHAR(64),
            vouched TEXT NOT NULL,
            reason TEXT NOT NULL,
            recorded_at TIMESTAMPTZ(0) NOT NULL,
            seq BIGINT GENERATED ALWAYS AS IDENTITY
            SQL);
        $this->days();
        $this->procedures();
        $this->addSql("ALTER TABLE site ADD seal_mail TEXT NOT NULL DEFAULT '', ADD signs_from VARCHAR(5) NOT NULL DEFAULT '04:00', ADD asks_second_signature BOOLEAN NOT NULL DEFAULT FALSE");
        $this->addSql(<<<'SQL'
            CREATE OR REPLACE FUNCTION whole_figures() RETURNS TABLE (entries BIGINT, open_batches BIGINT, behind BIGINT, last_link TIMESTAMPTZ)
            LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp AS $$
                SELECT (SELECT count(*) FROM event), (SELECT count(*) FROM open_tag),
                    (SELECT count(*) FROM projection_state WHERE made < head), (SELECT max(l.recorded_at) FROM site s, LATERAL (
                        SELECT recorded_at FROM chain_link WHERE site_id = s.id ORDER BY position DESC LIMIT 1) AS l)
            $$
            SQL);
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException('Records are never removed.');
    }

    /** Links made before stay what they are, and are walked as they were made (form 1). */
    private function links(): void
    {
        $this->addSql('ALTER TABLE chain_link ADD form SMALLINT NOT NULL DEFAULT 1, ADD row_digest BYTEA');
        $this->addSql('ALTER TABLE chain_link ALTER form SET DEFAULT 2');
        // What is hashed of a link beside the hash before it: docs/format/proof.md.
        $this->addSql(<<<'SQL'
            CREATE FUNCTION chain_words(of_site UUID, place BIGINT, of_kind TEXT, of_id UUID, recorded TIMESTAMPTZ, of_row BYTEA)
            RETURNS TEXT LANGUAGE sql STABLE AS $$
                SELECT concat_ws(E'\n', 'verjuicer-link/2', of_site, place, of_kind, of_id,
                    to_char(recorded AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"'), encode(of_row, 'hex'))
            $$
            SQL);
        $this->addSql(<<<'SQL'
            CREATE OR REPLACE FUNCTION chain_add(of_site UUID, of_kind TEXT, of_id UUID, recorded TIMESTAMPTZ) RETURNS void LANGUAGE plpgsql AS $$
            DECLARE last RECORD; place BIGINT; of_row BYTEA; stamp TIMESTAMPTZ(0);
            BEGIN
                -- One writer a site at a time until it commits: the chain is in the order of commits.
                PERFORM 1 FROM site WHERE id = of_site FOR NO KEY UPDATE;
                SELECT position, hash, recorded_at INTO last FROM chain_link l WHERE l.site_id = of_site ORDER BY position DESC LIMIT 1;
                place := coalesce(last.position, 0) + 1;
                stamp := coalesce(recorded, last.recorded_at, to_timestamp(0));
                of_row := sha256(convert_to(chain_canonical(of_kind, of_id), 'UTF8'));
                INSERT INTO chain_link (site_id, position, kind, row_id, recorded_at, form, row_digest, hash)
                VALUES (of_site, place, of_kind, of_id, stamp, 2, of_row,
                    sha256(coalesce(last.hash, ''::bytea) || convert_to(chain_words(of_site, place, of_kind, of_id, stamp, of_row), 'UTF8')));
            END
            $$
            SQL);
        // When it was recorded is what its row says; of one that does not say, what the application said of this write (verjuicer.now).
        $this->addSql(<<<'SQL'
            CREATE OR REPLACE FUNCTION chain_row() RETURNS trigger LANGUAGE plpgsql AS $$
            DECLARE of_site UUID; recorded TIMESTAMPTZ;
            BEGIN
                CASE TG_TABLE_NAME
                    WHEN 'event' THEN SELECT b.site_id INTO of_site FROM batch b WHERE b.id = NEW.batch_id;
                    WHEN 'batch_lot' THEN SELECT b.site_id INTO of_site FROM batch b WHERE b.id = NEW.batch_id;
                    WHEN 'thermometer_check' THEN SELECT t.site_id INTO of_site FROM thermometer t WHERE t.id = NEW.thermometer_id;
                    ELSE of_site := (to_jsonb(NEW)->>'site_id')::uuid;
                END CASE;
                recorded := CASE TG_TABLE_NAME
                    WHEN 'batch' THEN NULL
                    WHEN 'batch_lot' THEN NULL
                    ELSE (to_jsonb(NEW)->>TG_ARGV[0])::timestamptz
                END;
                PERFORM chain_add(of_site, TG_TABLE_NAME, NEW.id,
                    coalesce(recorded, nullif(current_setting('verjuicer.now', true), '')::timestamptz));
                RETURN NULL;
            END
            $$
            SQL);
        $this->addSql(<<<'SQL'
            CREATE OR REPLACE FUNCTION keep_row() RETURNS trigger LANGUAGE plpgsql SET timezone = 'UTC' AS $$
            DECLARE content JSONB; of_site UUID; without TEXT[] := coalesce(TG_ARGV, ARRAY[]::TEXT[]);
            BEGIN
                content := to_jsonb(NEW) - without;
                IF TG_OP = 'UPDATE' AND content = to_jsonb(OLD) - without THEN
                    RETURN NULL;
                END IF;
                of_site := CASE TG_TABLE_NAME WHEN 'site' THEN NEW.id ELSE (to_jsonb(NEW)->>'site_id')::uuid END;
                INSERT INTO row_kept (id, site_id, of_table, row_id, content, recorded_at)
                VALUES (gen_random_uuid(), of_site, TG_TABLE_NAME, NEW.id, content, coalesce(
                    nullif(current_setting('verjuicer.now', true), '')::timestamptz,
                    (SELECT recorded_at FROM chain_link WHERE site_id = of_site ORDER BY position DESC LIMIT 1), to_timestamp(0)));
                RETURN NULL;
            END
            $$
            SQL);
    }

    private function columns(): void
    {
        $this->addSql('ALTER TABLE day_sign ADD until TIMESTAMPTZ(0), ADD breaks JSONB');
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
    }

    private function procedures(): void
    {
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

    /** The days before, by the times of their links, which never went back in form 1; the last one stays open. */
    private function days(): void
    {
        $this->addSql('DROP INDEX chain_link_recorded');
        $this->addSql(<<<'SQL'
            INSERT INTO day_close (id, site_id, day, next_day, first_position, last_position, digest, recorded_at)
            SELECT gen_random_uuid(), d.site_id, d.day, d.next_day, d.first_position, d.last_position, encode(l.hash, 'hex'), l.recorded_at
            FROM (
                SELECT site_id, day, lead(day) OVER of_site AS next_day, last_position,
                       coalesce(lag(last_position) OVER of_site, 0) + 1 AS first_position
                FROM (
                    SELECT l.site_id, (l.recorded_at AT TIME ZONE s.timezone)::date AS day, max(l.position) AS last_position
                    FROM chain_link l JOIN site s ON s.id = l.site_id WHERE l.recorded_at > to_timestamp(0) GROUP BY 1, 2
                ) AS by_day WINDOW of_site AS (PARTITION BY site_id ORDER BY last_position)
            ) AS d JOIN chain_link l ON l.site_id = d.site_id AND l.position = d.last_position
            WHERE d.next_day IS NOT NULL ORDER BY d.site_id, d.last_position
            SQL);
    }
}
