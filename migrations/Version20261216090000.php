<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261216090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'A sensor publishes under the public name of its key, never under its secret';
    }

    public function up(Schema $schema): void
    {
        // token_hash is the SHA-256 of the secret, and the key of what a sensor signs. Its own SHA-256 may be known to all.
        $this->addSql("ALTER TABLE access_token ADD key_id TEXT NOT NULL GENERATED ALWAYS AS (encode(sha256(decode(token_hash, 'hex')), 'hex')) STORED");
        $this->addSql('CREATE UNIQUE INDEX access_token_key_id ON access_token (key_id)');
        $this->addSql('DROP POLICY held ON access_token');
        $this->addSql("CREATE POLICY held ON access_token FOR SELECT USING (current_setting('verjuicer.token', true) IN (token_hash, key_id))");
    }
}
