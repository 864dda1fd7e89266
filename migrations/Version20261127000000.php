<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/**
 * Open tags belong to the ledger; what is made of it says how far it is; reports have tables of their own; a queue for what the worker does.
 * All but the tags is made anew by `verjuicer:projections:rebuild`.
 */
final class Version20261127000000 extends AbstractMigration
{
    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE open_tag (
                site_id uuid NOT NULL REFERENCES site,
                tag smallint NOT NULL,
                batch_id uuid NOT NULL UNIQUE REFERENCES batch,
                PRIMARY KEY (site_id, tag)
            )
            SQL);
        $this->addSql('INSERT INTO open_tag (site_id, tag, batch_id) SELECT site_id, tag, batch_id FROM board_lane WHERE ended_at IS NULL');
        $this->addSql(<<<'SQL'
            CREATE TABLE projection_state (
                batch_id uuid PRIMARY KEY REFERENCES batch,
                site_id uuid NOT NULL REFERENCES site,
                head bigint NOT NULL,
                made bigint NOT NULL DEFAULT 0,
                shape text NOT NULL DEFAULT '',
                next_turn timestamptz,
                problem text
            )
            SQL);
        $this->addSql('CREATE INDEX projection_state_stale ON projection_state (site_id) WHERE made < head');
        $this->addSql('INSERT INTO projection_state (batch_id, site_id, head) SELECT id, site_id, 1 FROM batch');
        $this->addSql('DROP INDEX board_lane_turn, board_lane_open_tag');
        $this->addSql('ALTER TABLE board_lane DROP COLUMN next_turn, ADD COLUMN has_open_action boolean NOT NULL DEFAULT false');
        $this->addSql('CREATE INDEX board_lane_action ON board_lane (site_id, ended_at) WHERE has_open_action AND ended_at IS NOT NULL');
        $this->addSql(<<<'SQL'
            CREATE TABLE batch_report (
                batch_id uuid PRIMARY KEY REFERENCES batch,
                site_id uuid NOT NULL REFERENCES site,
                verdict varchar(16) NOT NULL,
                ended_at timestamptz,
                stage varchar(24),
                place text
            )
            SQL);
        $this->addSql("CREATE INDEX event_served ON event (at) WHERE type = 'serve'");
        $this->addSql('CREATE INDEX batch_report_ended ON batch_report (site_id, ended_at)');
        $this->addSql(<<<'SQL'
            CREATE TABLE stage_report (
                batch_id uuid NOT NULL REFERENCES batch,
                place_in_order smallint NOT NULL,
                stage varchar(24) NOT NULL,
                from_at timestamptz NOT NULL,
                to_at timestamptz,
                place text,
                PRIMARY KEY (batch_id, place_in_order)
            )
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE rule_report (
                batch_id uuid NOT NULL REFERENCES batch,
                rule varchar(64) NOT NULL,
                verdict varchar(16),
                PRIMARY KEY (batch_id, rule)
            )
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE deviation (
                batch_id uuid NOT NULL REFERENCES batch,
                rule varchar(64) NOT NULL,
                at timestamptz,
                unit text,
                PRIMARY KEY (batch_id, rule)
            )
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE import (
                id uuid PRIMARY KEY,
                site_id uuid NOT NULL REFERENCES site,
                account_id uuid NOT NULL REFERENCES account,
                at timestamptz NOT NULL,
                what varchar(16) NOT NULL,
                mapping jsonb NOT NULL,
                text text,
                finished_at timestamptz,
                added integer,
                known integer,
                problem text
            )
            SQL);
        $this->addSql('CREATE INDEX import_site ON import (site_id, at)');
        $this->queue();
    }

    /** As the Doctrine transport of Messenger has it, with its trigger: a worker that waits is woken. */
    private function queue(): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE messenger_messages (
                id bigserial PRIMARY KEY,
                body text NOT NULL,
                headers text NOT NULL,
                queue_name varchar(190) NOT NULL,
                created_at timestamp(0) NOT NULL,
                available_at timestamp(0) NOT NULL,
                delivered_at timestamp(0)
            )
            SQL);
        $this->addSql('CREATE INDEX messenger_messages_next ON messenger_messages (queue_name, available_at, delivered_at, id)');
        $this->addSql(<<<'SQL'
            CREATE FUNCTION notify_messenger_messages() RETURNS trigger LANGUAGE plpgsql AS $$
            BEGIN
                PERFORM pg_notify('messenger_messages', NEW.queue_name::text);
                RETURN NEW;
            END
            $$
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TRIGGER notify_trigger AFTER INSERT OR UPDATE ON messenger_messages
            FOR EACH ROW EXECUTE FUNCTION notify_messenger_messages()
            SQL);
    }
}
