<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261207090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Imports that are looked at before they are asked for, can be stopped and gone on with';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            ALTER TABLE import ADD digest CHAR(64) NOT NULL DEFAULT '', ADD asked_at TIMESTAMPTZ(0),
                ADD told_at TIMESTAMPTZ(0), ADD stopped_at TIMESTAMPTZ(0), ADD batch_id UUID REFERENCES batch
            SQL);
        $this->addSql('UPDATE import SET asked_at = at');
    }
}
