<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261222090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'An alarm is told in the language of whoever reads it';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE alarm ADD texts JSONB DEFAULT '{}' NOT NULL");
    }
}
