<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261201090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Plans and their dishes: no records, they may be changed';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE plan (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                name VARCHAR(80) NOT NULL,
                services JSON NOT NULL,
                shifts JSON NOT NULL,
                begins_at TIMESTAMPTZ(0) NOT NULL,
                made_by_id UUID NOT NULL REFERENCES account,
                made_at TIMESTAMPTZ(0) NOT NULL,
                is_retired BOOLEAN NOT NULL DEFAULT false
            )
            SQL);
        $this->addSql('CREATE INDEX plan_of_site ON plan (site_id, begins_at)');
        $this->addSql(<<<'SQL'
            CREATE TABLE plan_dish (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                plan_id UUID NOT NULL REFERENCES plan,
                product_id UUID NOT NULL REFERENCES product,
                service VARCHAR(36) NOT NULL,
                facts JSON NOT NULL,
                batch_id UUID REFERENCES batch,
                planned JSON,
                is_removed BOOLEAN NOT NULL DEFAULT false
            )
            SQL);
        $this->addSql('CREATE INDEX plan_dish_of ON plan_dish (plan_id)');
        $this->addSql('CREATE UNIQUE INDEX plan_dish_batch ON plan_dish (batch_id)');
        foreach (['plan', 'plan_dish'] as $table) {
            $this->addSql("ALTER TABLE $table ENABLE ROW LEVEL SECURITY");
            $this->addSql("CREATE POLICY of_site ON $table USING (site_id = nullif(current_setting('verjuicer.site', true), '')::uuid)");
            $this->addSql("GRANT SELECT, INSERT, UPDATE ON $table TO verjuicer_app");
        }
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE plan_dish');
        $this->addSql('DROP TABLE plan');
    }
}
