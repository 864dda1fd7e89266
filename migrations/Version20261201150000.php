<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261201150000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'From when on cooks of a product are heard by plans';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE product ADD heard_since TIMESTAMPTZ(0)');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE product DROP heard_since');
    }
}
