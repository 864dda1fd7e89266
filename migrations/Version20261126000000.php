<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261126000000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'What a batch took from a lot is linked into the chain as well; who wrote in which batch is found quickly';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE batch_lot ADD id UUID NOT NULL DEFAULT gen_random_uuid() UNIQUE');
        $this->addSql(<<<'SQL'
            CREATE OR REPLACE FUNCTION chain_row() RETURNS trigger LANGUAGE plpgsql AS $$
            DECLARE of_site UUID; recorded TIMESTAMPTZ;
            BEGIN
                CASE TG_TABLE_NAME
                    WHEN 'event' THEN SELECT b.site_id INTO of_site FROM batch b WHERE b.id = NEW.batch_id;
                    WHEN 'batch_lot' THEN SELECT b.site_id, b.begun_at INTO of_site, recorded FROM batch b WHERE b.id = NEW.batch_id;
                    WHEN 'thermometer_check' THEN SELECT t.site_id INTO of_site FROM thermometer t WHERE t.id = NEW.thermometer_id;
                    ELSE of_site := (to_jsonb(NEW)->>'site_id')::uuid;
                END CASE;
                PERFORM chain_add(of_site, TG_TABLE_NAME, NEW.id, coalesce(recorded, (to_jsonb(NEW)->>TG_ARGV[0])::timestamptz));
                RETURN NULL;
            END
            $$
            SQL);
        // A link is never of an earlier moment than the one before it, whatever its row says: so "up to the end of a day" is one place in the chain.
        $this->addSql(<<<'SQL'
            CREATE OR REPLACE FUNCTION chain_add(of_site UUID, of_kind TEXT, of_id UUID, recorded TIMESTAMPTZ) RETURNS void LANGUAGE plpgsql AS $$
            DECLARE last RECORD;
            BEGIN
                -- One writer a site at a time until it commits: the chain is in the order of commits.
                PERFORM 1 FROM site WHERE id = of_site FOR NO KEY UPDATE;
                SELECT position, hash, recorded_at INTO last FROM chain_link l WHERE l.site_id = of_site ORDER BY position DESC LIMIT 1;
                INSERT INTO chain_link VALUES (of_site, coalesce(last.position, 0) + 1, of_kind, of_id, greatest(recorded, last.recorded_at),
                    sha256(coalesce(last.hash, ''::bytea) || convert_to(chain_canonical(of_kind, of_id), 'UTF8')));
            END
            $$
            SQL);
        $this->addSql(<<<'SQL'
            DO $$
            DECLARE r RECORD;
            BEGIN
                FOR r IN SELECT b.site_id, l.id, b.begun_at FROM batch_lot l JOIN batch b ON b.id = l.batch_id ORDER BY b.begun_at, l.id LOOP
                    PERFORM chain_add(r.site_id, 'batch_lot', r.id, r.begun_at);
                END LOOP;
            END
            $$
            SQL);
        $this->addSql("CREATE TRIGGER batch_lot_chained AFTER INSERT ON batch_lot FOR EACH ROW EXECUTE FUNCTION chain_row('')");
        $this->addSql("CREATE INDEX event_closed ON event (batch_id) WHERE type = 'close'");
        $this->addSql('CREATE INDEX event_replaces ON event (replaces) WHERE replaces IS NOT NULL');
        $this->addSql('CREATE INDEX thermometer_check_at ON thermometer_check (thermometer_id, at)');
        $this->addSql('DROP INDEX event_at');
        $this->addSql('CREATE INDEX event_at ON event (at, batch_id)');
        $this->addSql('DROP INDEX chain_link_recorded');
        $this->addSql('CREATE INDEX chain_link_recorded ON chain_link (site_id, recorded_at, position)');
        $this->addSql('CREATE INDEX event_by ON event (batch_id, account_id)');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException('Records are never removed.');
    }
}
