<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261220090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'A site chooses inches or centimeters; those that weigh in pounds begin with inches';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE site ADD length_unit VARCHAR(2) DEFAULT 'cm' NOT NULL");
        $this->addSql("UPDATE site SET length_unit = 'in' WHERE weight_unit = 'lb'");
        $this->addSql('ALTER TABLE site ALTER length_unit DROP DEFAULT');
    }
}
