<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261202090000 extends AbstractMigration
{
    private const SITE = "nullif(current_setting('verjuicer.site', true), '')::uuid";
    private const TOKEN = "nullif(current_setting('verjuicer.token', true), '')";

    public function getDescription(): string
    {
        return 'Sensors that log themselves: their tokens, channels, where they are, what they say';
    }

    public function up(Schema $schema): void
    {
        $this->sensors();
        $this->recorded();
        $this->series();
    }

    private function sensors(): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE sensor (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                name VARCHAR(12) NOT NULL,
                registered_at TIMESTAMPTZ(0) NOT NULL,
                registered_by UUID NOT NULL REFERENCES account,
                revoked_at TIMESTAMPTZ(0),
                seen_at TIMESTAMPTZ(0),
                skew_seconds INTEGER,
                battery_percent SMALLINT,
                UNIQUE (site_id, name)
            )
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE access_token (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                sensor_id UUID REFERENCES sensor,
                name VARCHAR(60) NOT NULL,
                token_hash CHAR(64) NOT NULL UNIQUE,
                made_at TIMESTAMPTZ(0) NOT NULL,
                made_by UUID NOT NULL REFERENCES account,
                revoked_at TIMESTAMPTZ(0)
            )
            SQL);
        $this->addSql('CREATE INDEX access_token_of ON access_token (site_id)');
        $this->addSql('CREATE POLICY held ON access_token FOR SELECT USING (token_hash = '.self::TOKEN.')');
        $this->addSql(<<<'SQL'
            CREATE TABLE sensor_channel (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                sensor_id UUID NOT NULL REFERENCES sensor,
                number SMALLINT NOT NULL,
                thermometer_id UUID NOT NULL REFERENCES thermometer,
                last_sequence BIGINT,
                last_at TIMESTAMPTZ(0),
                last_tenths INTEGER,
                last_unit CHAR(1),
                state JSONB NOT NULL DEFAULT '{}',
                UNIQUE (sensor_id, number)
            )
            SQL);
        $this->addSql('CREATE INDEX sensor_channel_of ON sensor_channel (site_id)');
        $this->addSql(<<<'SQL'
            CREATE TABLE sensor_fault (
                channel_id UUID NOT NULL REFERENCES sensor_channel,
                site_id UUID NOT NULL REFERENCES site,
                kind VARCHAR(16) NOT NULL,
                from_at TIMESTAMPTZ(0) NOT NULL,
                until_at TIMESTAMPTZ(0),
                PRIMARY KEY (channel_id, kind, from_at)
            )
            SQL);
        $this->addSql('CREATE INDEX sensor_fault_open ON sensor_fault (site_id) WHERE until_at IS NULL');
        foreach (['sensor', 'access_token', 'sensor_channel', 'sensor_fault'] as $table) {
            $this->wall($table);
            $this->addSql("GRANT SELECT, INSERT, UPDATE ON $table TO verjuicer_app");
        }
    }

    private function recorded(): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE sensor_assignment (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                channel_id UUID NOT NULL REFERENCES sensor_channel,
                at TIMESTAMPTZ(0) NOT NULL,
                recorded_at TIMESTAMPTZ(0) NOT NULL,
                account_id UUID NOT NULL REFERENCES account,
                initials VARCHAR(8) NOT NULL,
                target VARCHAR(8) NOT NULL CHECK (target IN ('none', 'pit', 'place', 'batch')),
                pit_id UUID REFERENCES pit,
                place TEXT,
                batch_id UUID REFERENCES batch,
                piece SMALLINT,
                spot TEXT,
                seq BIGINT GENERATED ALWAYS AS IDENTITY
            )
            SQL);
        $this->addSql('CREATE INDEX sensor_assignment_of ON sensor_assignment (channel_id, seq)');
        $this->addSql('CREATE INDEX sensor_assignment_batch ON sensor_assignment (batch_id) WHERE batch_id IS NOT NULL');
        $this->addSql(<<<'SQL'
            CREATE TABLE series_block (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                channel_id UUID NOT NULL REFERENCES sensor_channel,
                after_n BIGINT NOT NULL,
                to_n BIGINT NOT NULL,
                samples INTEGER NOT NULL,
                digest CHAR(64) NOT NULL,
                recorded_at TIMESTAMPTZ(0) NOT NULL,
                UNIQUE (channel_id, to_n)
            )
            SQL);
        foreach (['sensor_assignment', 'series_block'] as $table) {
            $this->wall($table);
            $this->addSql("GRANT SELECT, INSERT ON $table TO verjuicer_app");
            $this->addSql("CREATE TRIGGER {$table}_chained AFTER INSERT ON $table FOR EACH ROW EXECUTE FUNCTION chain_row('recorded_at')");
            $this->onlyAdded($table);
        }
    }

    /** What sensors say, raw: a part a day of arrival, made when its first sample comes. */
    private function series(): void
    {
        $this->addSql('CREATE SEQUENCE series_n');
        $this->addSql(<<<'SQL'
            CREATE TABLE series (
                channel_id UUID NOT NULL,
                sequence BIGINT NOT NULL,
                received_on DATE NOT NULL,
                site_id UUID NOT NULL,
                n BIGINT NOT NULL DEFAULT nextval('series_n'),
                device_at TIMESTAMPTZ(0) NOT NULL,
                at TIMESTAMPTZ(0) NOT NULL,
                received_at TIMESTAMPTZ(0) NOT NULL,
                tenths INTEGER,
                unit CHAR(1),
                PRIMARY KEY (channel_id, sequence, received_on)
            ) PARTITION BY RANGE (received_on)
            SQL);
        $this->addSql('CREATE INDEX series_at ON series (site_id, channel_id, at)');
        $this->addSql('CREATE INDEX series_order ON series (channel_id, n)');
        $this->wall('series');
        $this->addSql('GRANT SELECT, INSERT ON series TO verjuicer_app');
        $this->addSql('GRANT USAGE ON SEQUENCE series_n TO verjuicer_app');
        $this->addSql('CREATE TRIGGER series_only_added BEFORE UPDATE OR DELETE ON series FOR EACH ROW EXECUTE FUNCTION refuse_change()');
        $this->addSql(<<<'SQL'
            CREATE FUNCTION series_day(day DATE) RETURNS void
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
                EXECUTE format('CREATE POLICY of_site ON %I USING (site_id = nullif(current_setting(''verjuicer.site'', true), '''')::uuid)', part);
                EXECUTE format('GRANT SELECT, INSERT ON %I TO verjuicer_app', part);
            END
            $$
            SQL);
    }

    private function wall(string $table): void
    {
        $this->addSql("ALTER TABLE $table ENABLE ROW LEVEL SECURITY");
        $this->addSql("CREATE POLICY of_site ON $table USING (site_id = ".self::SITE.')');
    }

    private function onlyAdded(string $table): void
    {
        $this->addSql("CREATE TRIGGER {$table}_only_added BEFORE UPDATE OR DELETE ON $table FOR EACH ROW EXECUTE FUNCTION refuse_change()");
        $this->addSql("CREATE TRIGGER {$table}_never_emptied BEFORE TRUNCATE ON $table FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()");
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException('Records are never removed.');
    }
}
