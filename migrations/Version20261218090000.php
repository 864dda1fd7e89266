<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261218090000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'The logins of all sensors for the broker, without what they sign with';
    }

    public function up(Schema $schema): void
    {
        // A login lets a sensor publish to its own topic; what it publishes is signed with token_hash, which stays here.
        $this->addSql(<<<'SQL'
            CREATE FUNCTION sensor_logins() RETURNS TABLE (name text, password text)
            LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp AS $$
                SELECT key_id, encode(sha256(decode(token_hash, 'hex') || 'mqtt'::bytea), 'hex')
                FROM access_token WHERE sensor_id IS NOT NULL AND revoked_at IS NULL ORDER BY key_id
            $$
            SQL);
        $this->addSql('REVOKE ALL ON FUNCTION sensor_logins() FROM PUBLIC');
        $this->addSql('GRANT EXECUTE ON FUNCTION sensor_logins() TO verjuicer_app');
    }
}
