<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261208090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'What a kitchen\'s own cooks teach its forecasts: what each showed, and dated versions of what it comes to';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE prior_lesson (
                batch_id UUID NOT NULL REFERENCES batch,
                about TEXT NOT NULL,
                subject TEXT NOT NULL,
                site_id UUID NOT NULL REFERENCES site,
                over_at TIMESTAMPTZ(0) NOT NULL,
                shown JSONB NOT NULL,
                PRIMARY KEY (batch_id, about, subject)
            )
            SQL);
        $this->addSql('CREATE INDEX prior_lesson_of ON prior_lesson (site_id, about, subject, over_at DESC)');
        $this->addSql(<<<'SQL'
            CREATE TABLE prior_version (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                about TEXT NOT NULL,
                subject TEXT NOT NULL,
                made_on DATE NOT NULL,
                made_at TIMESTAMPTZ(0) NOT NULL,
                unknowns JSONB NOT NULL,
                batches JSONB NOT NULL,
                withdrawn_at TIMESTAMPTZ(0),
                withdrawn_by_id UUID REFERENCES account
            )
            SQL);
        $this->addSql('CREATE INDEX prior_version_of ON prior_version (site_id, about, subject, made_at DESC)');
        foreach (['prior_lesson' => 'SELECT, INSERT, UPDATE, DELETE', 'prior_version' => 'SELECT, INSERT, UPDATE'] as $table => $may) {
            $this->addSql("ALTER TABLE $table ENABLE ROW LEVEL SECURITY");
            $this->addSql("CREATE POLICY of_site ON $table USING (site_id = nullif(current_setting('verjuicer.site', true), '')::uuid)");
            $this->addSql("GRANT $may ON $table TO verjuicer_app");
        }
    }
}
