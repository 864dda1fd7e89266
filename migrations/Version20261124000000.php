<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261124000000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Sites, accounts, products, thermometers, batches and their events, and the board made from them';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE site (
                id UUID PRIMARY KEY,
                name TEXT NOT NULL,
                timezone TEXT NOT NULL,
                unit CHAR(1) NOT NULL CHECK (unit IN ('F', 'C')),
                elevation_m INT,
                rule_set TEXT NOT NULL
            )
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE account (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                login TEXT NOT NULL UNIQUE,
                name TEXT NOT NULL,
                initials TEXT NOT NULL,
                role TEXT NOT NULL CHECK (role IN ('crew', 'pitmaster', 'manager', 'inspector')),
                password TEXT NOT NULL
            )
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE product (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                name TEXT NOT NULL,
                animal TEXT NOT NULL,
                form TEXT NOT NULL,
                integrity TEXT NOT NULL,
                usual_grams INT CHECK (usual_grams > 0),
                spots JSONB NOT NULL,
                UNIQUE (site_id, name)
            )
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE thermometer (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                label TEXT NOT NULL,
                UNIQUE (site_id, label)
            )
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE thermometer_check (
                id UUID PRIMARY KEY,
                seq BIGINT GENERATED ALWAYS AS IDENTITY,
                thermometer_id UUID NOT NULL REFERENCES thermometer,
                at TIMESTAMPTZ(0) NOT NULL,
                recorded_at TIMESTAMPTZ(0) NOT NULL,
                account_id UUID NOT NULL REFERENCES account,
                method TEXT NOT NULL,
                expected JSONB NOT NULL,
                read JSONB NOT NULL
            )
            SQL);
        $this->addSql('CREATE INDEX thermometer_check_of ON thermometer_check (thermometer_id, seq)');
        $this->addSql(<<<'SQL'
            CREATE TABLE batch (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                tag INT NOT NULL CHECK (tag BETWEEN 1 AND 999),
                code TEXT NOT NULL,
                product_name TEXT NOT NULL,
                animal TEXT NOT NULL,
                form TEXT NOT NULL,
                integrity TEXT NOT NULL,
                pieces INT NOT NULL CHECK (pieces > 0),
                raw_grams INT CHECK (raw_grams > 0),
                is_stuffed BOOLEAN NOT NULL,
                is_wild BOOLEAN NOT NULL,
                has_advisory BOOLEAN NOT NULL,
                rule_set TEXT NOT NULL,
                begun_at TIMESTAMPTZ(0) NOT NULL,
                begun_by_id UUID NOT NULL REFERENCES account,
                UNIQUE (site_id, code)
            )
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE event (
                id UUID PRIMARY KEY,
                seq BIGINT GENERATED ALWAYS AS IDENTITY UNIQUE,
                batch_id UUID NOT NULL REFERENCES batch,
                at TIMESTAMPTZ(0) NOT NULL,
                recorded_at TIMESTAMPTZ(0) NOT NULL,
                account_id UUID NOT NULL REFERENCES account,
                initials TEXT NOT NULL,
                type TEXT NOT NULL,
                members JSONB NOT NULL,
                replaces UUID,
                reason TEXT,
                UNIQUE (batch_id, id),
                FOREIGN KEY (batch_id, replaces) REFERENCES event (batch_id, id),
                CHECK (replaces <> id),
                CHECK (type <> 'void' OR replaces IS NOT NULL)
            )
            SQL);
        $this->addSql('CREATE INDEX event_of ON event (batch_id, seq)');
        $this->addSql(<<<'SQL'
            CREATE TABLE board_lane (
                batch_id UUID PRIMARY KEY REFERENCES batch,
                site_id UUID NOT NULL REFERENCES site,
                tag INT NOT NULL,
                ended_at TIMESTAMPTZ(0),
                verdict TEXT NOT NULL,
                next_turn TIMESTAMPTZ(0),
                facts JSONB NOT NULL,
                version BIGINT NOT NULL
            )
            SQL);
        $this->addSql('CREATE SEQUENCE board_version');
        $this->addSql('CREATE INDEX board_lane_version ON board_lane (site_id, version)');
        $this->addSql('CREATE INDEX board_lane_turn ON board_lane (site_id, next_turn) WHERE ended_at IS NULL');
        $this->addSql('CREATE UNIQUE INDEX board_lane_open_tag ON board_lane (site_id, tag) WHERE ended_at IS NULL');
        $this->addSql('CREATE INDEX board_lane_ended ON board_lane (site_id, ended_at)');

        // What is recorded stays: a correction is a new row.
        $this->addSql(<<<'SQL'
            CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
            BEGIN
                RAISE EXCEPTION 'Rows of % are only ever added: record a correction instead.', TG_TABLE_NAME USING ERRCODE = 'restrict_violation';
            END
            $$
            SQL);
        foreach (['event', 'batch', 'thermometer_check'] as $table) {
            $this->addSql("CREATE TRIGGER {$table}_only_added BEFORE UPDATE OR DELETE ON {$table} FOR EACH ROW EXECUTE FUNCTION refuse_change()");
            $this->addSql("CREATE TRIGGER {$table}_never_emptied BEFORE TRUNCATE ON {$table} FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()");
        }
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException('Records are never removed.');
    }
}
