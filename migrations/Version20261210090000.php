<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261210090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'What own rests and coolings taught of air and wetness that are reckoned otherwise now is learnt anew';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('DELETE FROM prior_lesson');
        $this->addSql('DELETE FROM prior_version WHERE withdrawn_at IS NULL');
        // What somebody took back stays taken back: its batches are heard no more.
        $this->addSql("UPDATE prior_version SET unknowns = '{}'");
    }
}
