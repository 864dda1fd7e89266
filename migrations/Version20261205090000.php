<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261205090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'How far a long record was judged, beside its batch';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE abridged_record (
                batch_id UUID PRIMARY KEY REFERENCES batch,
                site_id UUID NOT NULL REFERENCES site,
                basis TEXT NOT NULL,
                place BIGINT NOT NULL,
                places_after BIGINT[] NOT NULL,
                abridgement TEXT NOT NULL,
                kept TEXT NOT NULL
            )
            SQL);
        $this->addSql('ALTER TABLE abridged_record ENABLE ROW LEVEL SECURITY');
        $this->addSql("CREATE POLICY of_site ON abridged_record USING (site_id = nullif(current_setting('verjuicer.site', true), '')::uuid)");
        $this->addSql('GRANT SELECT, INSERT, UPDATE, DELETE ON abridged_record TO verjuicer_app');
        // What is no reading is asked for by its kind; there are few of them among many readings.
        $this->addSql("CREATE INDEX event_told ON event (batch_id, type, at) WHERE type <> 'reading'");
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP INDEX event_told');
        $this->addSql('DROP TABLE abridged_record');
    }
}
