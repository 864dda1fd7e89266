<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261219090000 extends AbstractMigration
{
    private const PERSON_EXISTS = 'EXISTS (SELECT FROM account o WHERE o.person_id = person.id)';

    public function getDescription(): string
    {
        return 'The role of the application cannot choose its site: what policies read is sealed with a key of the application';
    }

    public function up(Schema $schema): void
    {
        // TenancyKey writes it after each migration: HMAC-SHA-256 (RFC 2104) with the two padded keys made beforehand.
        $this->addSql(<<<'SQL'
            CREATE TABLE tenancy_key (
                is_only BOOLEAN PRIMARY KEY DEFAULT true CHECK (is_only), inner_key BYTEA NOT NULL, outer_key BYTEA NOT NULL
            )
            SQL);
        $this->addSql('REVOKE ALL ON tenancy_key FROM verjuicer_app');
        // In plpgsql, whose plans last for the session: in SQL each query would plan them anew.
        foreach (['site' => 'uuid', 'person' => 'uuid', 'token' => 'text'] as $name => $type) {
            $this->addSql(<<<SQL
                CREATE FUNCTION tenant_$name() RETURNS $type
                LANGUAGE plpgsql STABLE SECURITY DEFINER SET search_path = public, pg_temp AS \$\$
                DECLARE said TEXT := current_setting('verjuicer.$name', true); k tenancy_key;
                BEGIN
                    IF coalesce(said, '') = '' THEN
                        RETURN NULL;
                    END IF;
                    SELECT * INTO k FROM tenancy_key;
                    RETURN CASE WHEN current_setting('verjuicer.seal', true) = encode(sha256(k.outer_key || sha256(k.inner_key || convert_to(
                        current_setting('verjuicer.site', true) || E'\\n' || current_setting('verjuicer.person', true) || E'\\n'
                        || current_setting('verjuicer.token', true), 'UTF8'))), 'hex') THEN said::$type END;
                END
                \$\$
                SQL);
            $this->addSql("REVOKE ALL ON FUNCTION tenant_$name() FROM PUBLIC");
            $this->addSql("GRANT EXECUTE ON FUNCTION tenant_$name() TO verjuicer_app");
        }
        // In brackets with SELECT: asked once a query, not once a row.
        $this->addSql(<<<'SQL'
            DO $$
            DECLARE p RECORD; said TEXT;
            BEGIN
                FOR p IN SELECT * FROM pg_policies WHERE schemaname = 'public' AND qual LIKE '%current_setting(%' LOOP
                    said := p.qual;
                    said := replace(said, '(NULLIF(current_setting(''verjuicer.site''::text, true), ''''::text))::uuid', '(SELECT tenant_site())');
                    said := replace(said, '(NULLIF(current_setting(''verjuicer.person''::text, true), ''''::text))::uuid', '(SELECT tenant_person())');
                    said := replace(said, 'NULLIF(current_setting(''verjuicer.token''::text, true), ''''::text)', '(SELECT tenant_token())');
                    said := replace(said, 'current_setting(''verjuicer.token''::text, true)', '(SELECT tenant_token())');
                    EXECUTE format('ALTER POLICY %I ON %I USING (%s)', p.policyname, p.tablename, said);
                END LOOP;
            END $$
            SQL);
        $this->addSql('ALTER TABLE person ENABLE ROW LEVEL SECURITY');
        $this->addSql('CREATE POLICY of_site ON person USING ('.self::PERSON_EXISTS.') WITH CHECK ('.self::PERSON_EXISTS.')');
        // Who logs in, or comes by an invitation; the first of a new site, whose account comes after.
        $this->addSql('CREATE POLICY held ON person FOR SELECT USING ((SELECT tenant_token()) IN (lower(login), invite_hash))');
        $this->addSql('CREATE POLICY invited ON person FOR INSERT WITH CHECK ((SELECT tenant_token()) = lower(login))');
        $this->addSql(<<<'SQL'
            CREATE OR REPLACE FUNCTION series_day(day date) RETURNS void
            LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
            DECLARE part TEXT := 'series_' || to_char(day, 'YYYYMMDD');
            BEGIN
                IF to_regclass(part) IS NOT NULL THEN
                    RETURN;
                END IF;
                PERFORM pg_advisory_xact_lock(hashtext('series_day'));
                IF to_regclass(part) IS NOT NULL THEN
                    RETURN;
                END IF;
                EXECUTE format('CREATE TABLE %I PARTITION OF series FOR VALUES FROM (%L) TO (%L)', part, day, day + 1);
                EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', part);
                EXECUTE format('CREATE POLICY of_site ON %I USING (site_id = (SELECT tenant_site()))', part);
                EXECUTE format('GRANT SELECT, INSERT ON %I TO verjuicer_app', part);
            END
            $$
            SQL);
    }
}
