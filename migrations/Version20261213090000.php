<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261213090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'No row is recorded behind the last link; a signature under a day carries proof of the password step';
    }

    public function up(Schema $schema): void
    {
        // Ed25519 with the key of the site, over what was signed and when the password was typed.
        $this->addSql('ALTER TABLE day_sign ADD proof CHAR(128)');
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
                    WHEN 'day_sign' THEN ARRAY['until', 'breaks', 'proof']
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
        // Two minutes are what a time server may put a clock back. What is changed of settings and people, and what
        // somebody says of the clock, is recorded whatever the clock says. How a lot arrived and was kept is recorded in
        // the batches made of it as it was in the lot; its link is of the moment at which the batch was begun.
        $this->addSql(<<<'SQL'
            CREATE OR REPLACE FUNCTION chain_row() RETURNS trigger LANGUAGE plpgsql AS $$
            DECLARE of_site UUID; recorded TIMESTAMPTZ; said TIMESTAMPTZ; last TIMESTAMPTZ; is_of_lot BOOLEAN := FALSE;
            BEGIN
                CASE TG_TABLE_NAME
                    WHEN 'event' THEN
                        SELECT b.site_id INTO of_site FROM batch b WHERE b.id = NEW.batch_id;
                        is_of_lot := NEW.type IN ('received', 'cold_hold', 'freeze', 'thaw');
                    WHEN 'batch_lot' THEN SELECT b.site_id INTO of_site FROM batch b WHERE b.id = NEW.batch_id;
                    WHEN 'thermometer_check' THEN SELECT t.site_id INTO of_site FROM thermometer t WHERE t.id = NEW.thermometer_id;
                    ELSE of_site := (to_jsonb(NEW)->>'site_id')::uuid;
                END CASE;
                recorded := CASE TG_TABLE_NAME
                    WHEN 'batch' THEN NULL
                    WHEN 'batch_lot' THEN NULL
                    ELSE (to_jsonb(NEW)->>TG_ARGV[0])::timestamptz
                END;
                said := nullif(current_setting('verjuicer.now', true), '')::timestamptz;
                IF is_of_lot AND said > recorded THEN
                    PERFORM chain_add(of_site, TG_TABLE_NAME, NEW.id, said);
                    RETURN NULL;
                END IF;
                PERFORM 1 FROM site WHERE id = of_site FOR NO KEY UPDATE;
                SELECT l.recorded_at INTO last FROM chain_link l WHERE l.site_id = of_site ORDER BY position DESC LIMIT 1;
                IF coalesce(recorded, said) < last - interval '120 seconds' AND TG_TABLE_NAME NOT IN
                    ('clock_word', 'day_close', 'site_key', 'site_change', 'account_change', 'row_kept', 'row_author') THEN
                    RAISE EXCEPTION 'recorded_at % is behind the last link (%): nothing is recorded back in time', coalesce(recorded, said), last;
                END IF;
                PERFORM chain_add(of_site, TG_TABLE_NAME, NEW.id, coalesce(recorded, said));
                RETURN NULL;
            END
            $$
            SQL);
    }
}
