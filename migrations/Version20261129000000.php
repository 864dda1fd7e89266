<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129000000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Settings of a site with what they were before; people who are invited, disabled and sign out';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            ALTER TABLE site
                ADD address TEXT NOT NULL DEFAULT '',
                ADD permit TEXT NOT NULL DEFAULT '',
                ADD weight_unit TEXT NOT NULL DEFAULT 'kg',
                ADD clock TEXT NOT NULL DEFAULT '24',
                ADD opens_at TEXT NOT NULL DEFAULT '06:00',
                ADD closes_at TEXT NOT NULL DEFAULT '21:00',
                ADD house_limits JSONB NOT NULL DEFAULT '{}',
                ADD changed_at TIMESTAMPTZ(0),
                ADD next_rule_set TEXT,
                ADD next_rule_set_from TIMESTAMPTZ(0),
                ADD asks_second_factor BOOLEAN NOT NULL DEFAULT FALSE,
                ADD is_practice BOOLEAN NOT NULL DEFAULT FALSE
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE site_change (
                id UUID PRIMARY KEY,
                seq BIGINT GENERATED ALWAYS AS IDENTITY UNIQUE,
                site_id UUID NOT NULL REFERENCES site,
                recorded_at TIMESTAMPTZ(0) NOT NULL,
                account_id UUID NOT NULL REFERENCES account,
                initials TEXT NOT NULL,
                in_force_from TIMESTAMPTZ(0) NOT NULL,
                before JSONB NOT NULL,
                after JSONB NOT NULL,
                reason TEXT NOT NULL
            )
            SQL);
        $this->addSql('CREATE INDEX site_change_of ON site_change (site_id, seq)');
        $this->keep('site_change', 'recorded_at');
        $this->people();
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException('Records are never removed.');
    }

    private function people(): void
    {
        $this->addSql(<<<'SQL'
            ALTER TABLE account
                ADD disabled_at TIMESTAMPTZ(0),
                ADD session_round INT NOT NULL DEFAULT 0,
                ADD factor_secret TEXT,
                ADD factor_step BIGINT NOT NULL DEFAULT 0,
                ADD recovery_hashes JSONB NOT NULL DEFAULT '[]',
                ADD invite_hash TEXT,
                ADD invite_until TIMESTAMPTZ(0)
            SQL);
        $this->addSql('ALTER TABLE account DROP CONSTRAINT IF EXISTS account_role_check');
        $this->addSql("ALTER TABLE account ADD CHECK (role IN ('reader', 'inspector', 'crew', 'pitmaster', 'manager'))");
        $this->addSql('CREATE UNIQUE INDEX account_initials ON account (site_id, upper(initials))');
        $this->addSql('CREATE UNIQUE INDEX account_invite ON account (invite_hash) WHERE invite_hash IS NOT NULL');
        $this->addSql(<<<'SQL'
            CREATE TABLE account_change (
                id UUID PRIMARY KEY,
                seq BIGINT GENERATED ALWAYS AS IDENTITY UNIQUE,
                site_id UUID NOT NULL REFERENCES site,
                subject_id UUID NOT NULL REFERENCES account,
                recorded_at TIMESTAMPTZ(0) NOT NULL,
                account_id UUID NOT NULL REFERENCES account,
                initials TEXT NOT NULL,
                what TEXT NOT NULL,
                before JSONB NOT NULL,
                after JSONB NOT NULL
            )
            SQL);
        $this->addSql('CREATE INDEX account_change_of ON account_change (site_id, seq)');
        $this->addSql(<<<'SQL'
            CREATE TABLE sign_in (
                id UUID PRIMARY KEY,
                account_id UUID NOT NULL REFERENCES account,
                at TIMESTAMPTZ(0) NOT NULL,
                address TEXT NOT NULL,
                agent TEXT NOT NULL,
                session_round INT NOT NULL
            )
            SQL);
        $this->addSql('CREATE INDEX sign_in_of ON sign_in (account_id, at)');
        $this->addSql('ALTER TABLE account ADD pin_hash TEXT');
        $this->addSql(<<<'SQL'
            CREATE TABLE device (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                name TEXT NOT NULL,
                token_hash TEXT NOT NULL UNIQUE,
                quiet_minutes SMALLINT NOT NULL CHECK (quiet_minutes BETWEEN 1 AND 30),
                registered_at TIMESTAMPTZ(0) NOT NULL,
                registered_by UUID NOT NULL REFERENCES account,
                revoked_at TIMESTAMPTZ(0)
            )
            SQL);
        $this->addSql('ALTER TABLE import ADD done INT NOT NULL DEFAULT 0, ADD total INT');
        // As the session handler and the cache of Symfony want them.
        $this->addSql(<<<'SQL'
            CREATE UNLOGGED TABLE cache_items (
                item_id VARCHAR(255) PRIMARY KEY,
                item_data BYTEA NOT NULL,
                item_lifetime INT,
                item_time INT NOT NULL
            )
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE session (
                sess_id VARCHAR(128) PRIMARY KEY,
                sess_data BYTEA NOT NULL,
                sess_lifetime INT NOT NULL,
                sess_time INT NOT NULL
            )
            SQL);
        $this->addSql('CREATE INDEX session_lifetime ON session (sess_lifetime)');
        $this->addSql('CREATE TABLE setup_code (hash TEXT PRIMARY KEY, until TIMESTAMPTZ(0) NOT NULL)');
        $this->keep('account_change', 'recorded_at');
    }

    /** Chained to the rows before, and only ever added to. */
    private function keep(string $table, string $moment): void
    {
        $this->addSql("CREATE TRIGGER {$table}_chained AFTER INSERT ON $table FOR EACH ROW EXECUTE FUNCTION chain_row('$moment')");
        $this->addSql("CREATE TRIGGER {$table}_only_added BEFORE UPDATE OR DELETE ON $table FOR EACH ROW EXECUTE FUNCTION refuse_change()");
        $this->addSql("CREATE TRIGGER {$table}_never_emptied BEFORE TRUNCATE ON $table FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()");
    }
}
