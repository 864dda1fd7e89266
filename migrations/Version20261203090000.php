<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261203090000 extends AbstractMigration
{
    private const SITE = "nullif(current_setting('verjuicer.site', true), '')::uuid";

    public function getDescription(): string
    {
        return 'Alarms: what was told, to whom, who took it; who is on duty when';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE alarm (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                cause TEXT NOT NULL,
                level VARCHAR(8) NOT NULL,
                words TEXT NOT NULL,
                does TEXT NOT NULL,
                until_at TIMESTAMPTZ(0),
                batch_id UUID REFERENCES batch,
                door TEXT NOT NULL,
                effects JSONB NOT NULL DEFAULT '[]',
                raised_at TIMESTAMPTZ(0) NOT NULL,
                over_at TIMESTAMPTZ(0),
                taken_at TIMESTAMPTZ(0),
                taken_by VARCHAR(8),
                settled_at TIMESTAMPTZ(0),
                put_off_until TIMESTAMPTZ(0),
                step SMALLINT NOT NULL DEFAULT 0,
                next_step_at TIMESTAMPTZ(0),
                UNIQUE (site_id, cause)
            )
            SQL);
        $this->addSql('CREATE INDEX alarm_open ON alarm (site_id) WHERE over_at IS NULL AND settled_at IS NULL');
        $this->addSql('CREATE INDEX alarm_batch ON alarm (batch_id) WHERE batch_id IS NOT NULL');
        $this->addSql(<<<'SQL'
            CREATE TABLE alarm_sending (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                alarm_id UUID NOT NULL REFERENCES alarm,
                step SMALLINT NOT NULL,
                channel VARCHAR(8) NOT NULL,
                account_id UUID REFERENCES account,
                address TEXT NOT NULL,
                made_at TIMESTAMPTZ(0) NOT NULL,
                next_try_at TIMESTAMPTZ(0),
                tries SMALLINT NOT NULL DEFAULT 0,
                sent_at TIMESTAMPTZ(0),
                problem TEXT
            )
            SQL);
        $this->addSql('CREATE INDEX alarm_sending_waits ON alarm_sending (site_id, next_try_at) WHERE sent_at IS NULL');
        $this->addSql('CREATE INDEX alarm_sending_of ON alarm_sending (alarm_id)');
        $this->addSql(<<<'SQL'
            CREATE TABLE duty_shift (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                account_id UUID NOT NULL REFERENCES account,
                weekdays SMALLINT NOT NULL,
                from_time VARCHAR(5) NOT NULL,
                to_time VARCHAR(5) NOT NULL,
                in_line SMALLINT NOT NULL,
                is_removed BOOLEAN NOT NULL DEFAULT false
            )
            SQL);
        $this->addSql('CREATE INDEX duty_shift_of ON duty_shift (site_id)');
        $this->addSql(<<<'SQL'
            CREATE TABLE account_contact (
                account_id UUID PRIMARY KEY REFERENCES account,
                site_id UUID NOT NULL REFERENCES site,
                mail TEXT NOT NULL DEFAULT '',
                phone TEXT NOT NULL DEFAULT ''
            )
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE alarm_plan (
                site_id UUID PRIMARY KEY REFERENCES site,
                levels JSONB NOT NULL,
                changed_at TIMESTAMPTZ(0) NOT NULL,
                changed_by UUID NOT NULL REFERENCES account
            )
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE stand_in_message (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                channel VARCHAR(8) NOT NULL,
                address TEXT NOT NULL,
                words TEXT NOT NULL,
                received_at TIMESTAMPTZ(0) NOT NULL
            )
            SQL);
        $tables = ['alarm', 'alarm_sending', 'duty_shift', 'account_contact', 'alarm_plan', 'stand_in_message'];
        foreach ($tables as $table) {
            $this->wall($table);
            $this->addSql("GRANT SELECT, INSERT, UPDATE ON $table TO verjuicer_app");
        }
        $this->addSql(<<<'SQL'
            CREATE TABLE alarm_event (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                alarm_id UUID NOT NULL REFERENCES alarm,
                batch_id UUID REFERENCES batch,
                at TIMESTAMPTZ(0) NOT NULL,
                recorded_at TIMESTAMPTZ(0) NOT NULL,
                account_id UUID REFERENCES account,
                initials VARCHAR(8) NOT NULL,
                type VARCHAR(12) NOT NULL,
                words TEXT NOT NULL,
                seq BIGINT GENERATED ALWAYS AS IDENTITY
            )
            SQL);
        $this->wall('alarm_event');
        $this->addSql('GRANT SELECT, INSERT ON alarm_event TO verjuicer_app');
        $this->addSql('CREATE INDEX alarm_event_of ON alarm_event (alarm_id, seq)');
        $this->addSql('CREATE INDEX alarm_event_batch ON alarm_event (batch_id, seq) WHERE batch_id IS NOT NULL');
        $this->addSql(<<<'SQL'
            CREATE FUNCTION all_sites() RETURNS SETOF UUID
            LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp AS $$ SELECT id FROM site $$
            SQL);
        $this->addSql("CREATE TRIGGER alarm_event_chained AFTER INSERT ON alarm_event FOR EACH ROW EXECUTE FUNCTION chain_row('recorded_at')");
        $this->addSql('CREATE TRIGGER alarm_event_only_added BEFORE UPDATE OR DELETE ON alarm_event FOR EACH ROW EXECUTE FUNCTION refuse_change()');
        $this->addSql('CREATE TRIGGER alarm_event_never_emptied BEFORE TRUNCATE ON alarm_event FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()');
    }

    private function wall(string $table): void
    {
        $this->addSql("ALTER TABLE $table ENABLE ROW LEVEL SECURITY");
        $this->addSql("CREATE POLICY of_site ON $table USING (site_id = ".self::SITE.')');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException('Records are never removed.');
    }
}
