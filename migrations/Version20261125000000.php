<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261125000000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'The cook side: suppliers and lots, recipes, pits, the register of thermometers, and the log of a site';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            ALTER TABLE site
                ADD allergen_list TEXT NOT NULL DEFAULT 'us9' CHECK (allergen_list IN ('us9', 'eu14')),
                ADD has_advisory BOOLEAN NOT NULL DEFAULT false,
                ADD is_susceptible BOOLEAN NOT NULL DEFAULT false
            SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE product
                ADD doneness JSONB NOT NULL DEFAULT '{}',
                ADD wrap TEXT NOT NULL DEFAULT '',
                ADD rest TEXT NOT NULL DEFAULT '',
                ADD is_retired BOOLEAN NOT NULL DEFAULT false
            SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE thermometer
                ADD kind TEXT NOT NULL DEFAULT 'instant',
                ADD serial TEXT NOT NULL DEFAULT '',
                ADD measures TEXT NOT NULL DEFAULT '',
                ADD holder TEXT NOT NULL DEFAULT '',
                ADD retired_at TIMESTAMPTZ(0)
            SQL);
        $this->addSql(<<<'SQL'
            ALTER TABLE thermometer_check
                ADD outcome TEXT NOT NULL DEFAULT 'kept' CHECK (outcome IN ('kept', 'adjusted', 'retired')),
                ADD pressure_hpa INT CHECK (pressure_hpa BETWEEN 500 AND 1080)
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE supplier (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                name TEXT NOT NULL,
                UNIQUE (site_id, name)
            )
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE lot (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                supplier_id UUID NOT NULL REFERENCES supplier,
                delivery_id UUID NOT NULL,
                product_id UUID NOT NULL REFERENCES product,
                number TEXT NOT NULL,
                pieces INT NOT NULL CHECK (pieces > 0),
                grams INT NOT NULL CHECK (grams > 0),
                price_cents INT CHECK (price_cents >= 0),
                is_frozen BOOLEAN NOT NULL,
                temp JSONB,
                thermometer TEXT,
                use_by DATE,
                is_accepted BOOLEAN NOT NULL,
                reason TEXT,
                at TIMESTAMPTZ(0) NOT NULL,
                recorded_at TIMESTAMPTZ(0) NOT NULL,
                account_id UUID NOT NULL REFERENCES account,
                CHECK (is_accepted OR reason IS NOT NULL)
            )
            SQL);
        $this->addSql('CREATE INDEX lot_of ON lot (site_id, at)');
        $this->addSql('CREATE INDEX lot_number ON lot (site_id, number)');
        $this->addSql(<<<'SQL'
            CREATE TABLE batch_lot (
                batch_id UUID NOT NULL REFERENCES batch,
                lot_id UUID NOT NULL REFERENCES lot,
                pieces INT NOT NULL CHECK (pieces > 0),
                grams INT NOT NULL CHECK (grams > 0),
                PRIMARY KEY (batch_id, lot_id)
            )
            SQL);
        $this->addSql('CREATE INDEX batch_lot_of ON batch_lot (lot_id)');
        $this->addSql(<<<'SQL'
            CREATE TABLE recipe (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                name TEXT NOT NULL,
                kind TEXT NOT NULL,
                grams_per_kg INT NOT NULL CHECK (grams_per_kg > 0),
                ingredients JSONB NOT NULL,
                is_retired BOOLEAN NOT NULL DEFAULT false,
                UNIQUE (site_id, name)
            )
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE pit (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                name TEXT NOT NULL,
                kind TEXT NOT NULL,
                capacity_kg INT CHECK (capacity_kg > 0),
                UNIQUE (site_id, name)
            )
            SQL);
        // What happened to a lot or at a pit, as events are kept of a batch.
        $this->addSql(<<<'SQL'
            CREATE TABLE site_event (
                id UUID PRIMARY KEY,
                seq BIGINT GENERATED ALWAYS AS IDENTITY UNIQUE,
                site_id UUID NOT NULL REFERENCES site,
                subject TEXT NOT NULL CHECK (subject IN ('lot', 'pit', 'thermometer')),
                subject_id UUID NOT NULL,
                at TIMESTAMPTZ(0) NOT NULL,
                recorded_at TIMESTAMPTZ(0) NOT NULL,
                account_id UUID NOT NULL REFERENCES account,
                initials TEXT NOT NULL,
                type TEXT NOT NULL,
                members JSONB NOT NULL
            )
            SQL);
        $this->addSql('CREATE INDEX site_event_of ON site_event (subject_id, seq)');
        foreach (['lot', 'batch_lot', 'site_event'] as $table) {
            $this->addSql("CREATE TRIGGER {$table}_only_added BEFORE UPDATE OR DELETE ON {$table} FOR EACH ROW EXECUTE FUNCTION refuse_change()");
            $this->addSql("CREATE TRIGGER {$table}_never_emptied BEFORE TRUNCATE ON {$table} FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()");
        }
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException('Records are never removed.');
    }
}
