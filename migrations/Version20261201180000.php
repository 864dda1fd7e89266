<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261201180000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'What is served of what is bought of a product, as a kitchen says it';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE product ADD yield_least INT, ADD yield_most INT');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE product DROP yield_least, DROP yield_most');
    }
}
