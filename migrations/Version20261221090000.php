<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261221090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'A packet is in a language of its own';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE packet ADD language VARCHAR(2) DEFAULT 'en' NOT NULL");
        $this->addSql('UPDATE packet p SET language = s.language FROM site s WHERE s.id = p.site_id');
    }
}
