<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261217090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Functions are for the role of the application alone';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('REVOKE EXECUTE ON ALL FUNCTIONS IN SCHEMA public FROM PUBLIC');
        $this->addSql('GRANT EXECUTE ON ALL FUNCTIONS IN SCHEMA public TO verjuicer_app');
    }
}
