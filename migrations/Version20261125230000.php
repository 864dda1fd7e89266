<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261125230000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'How long a site must keep its records, and what asks for it';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE site ADD keep_months INT NOT NULL DEFAULT 24 CHECK (keep_months BETWEEN 1 AND 240)');
        $this->addSql("ALTER TABLE site ADD keep_basis TEXT NOT NULL DEFAULT ''");
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException('Records are never removed.');
    }
}
