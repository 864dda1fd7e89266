<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261130000000 extends AbstractMigration
{
    // What Tenant sets on the connection; spelt out in each policy, because a function of SQL is parsed in each plan.
    private const SITE = "nullif(current_setting('verjuicer.site', true), '')::uuid";
    private const PERSON = "nullif(current_setting('verjuicer.person', true), '')::uuid";
    private const TOKEN = "nullif(current_setting('verjuicer.token', true), '')";

    /** What the application's role adds to and never changes. */
    private const RECORDED = [
        'account_change', 'batch', 'batch_fact', 'batch_lot', 'chain_link', 'day_said', 'day_sign', 'event', 'label',
        'lot', 'site_change', 'site_event', 'thermometer_check',
    ];

    /** What it may change, too. */
    private const OTHER = [
        'account', 'batch_report', 'board_lane', 'cache_items', 'claim', 'cook_template', 'deviation', 'device',
        'hold_unit', 'import', 'messenger_messages', 'open_tag', 'organisation', 'packet', 'person', 'pit', 'product',
        'projection_state', 'recipe', 'rule_report', 'session', 'setup_code', 'sign_in', 'site', 'stage_report',
        'supplier', 'thermometer',
    ];

    private const OF_A_SITE = [
        'account', 'account_change', 'batch', 'batch_fact', 'batch_report', 'board_lane', 'chain_link',
        'cook_template', 'day_said', 'day_sign', 'device', 'hold_unit', 'import', 'label', 'lot', 'open_tag', 'packet',
        'pit', 'product', 'projection_state', 'recipe', 'site_change', 'site_event', 'supplier', 'thermometer',
    ];

    /** Those that belong to what belongs to a site. */
    private const OF_SOMETHING = [
        'batch_lot' => 'batch', 'claim' => 'batch', 'deviation' => 'batch', 'event' => 'batch', 'rule_report' => 'batch',
        'sign_in' => 'account', 'stage_report' => 'batch', 'thermometer_check' => 'thermometer',
    ];

    public function getDescription(): string
    {
        return 'People who work in several sites of an organisation; each site behind a wall of its own in the database';
    }

    public function up(Schema $schema): void
    {
        $this->organisations();
        $this->people();
        $this->role();
        $this->walls();
        $this->figures();
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException('Records are never removed.');
    }

    private function organisations(): void
    {
        $this->addSql('CREATE TABLE organisation (id UUID PRIMARY KEY, name TEXT NOT NULL)');
        $this->addSql('INSERT INTO organisation (id, name) SELECT id, name FROM site');
        $this->addSql('ALTER TABLE site ADD organisation_id UUID REFERENCES organisation');
        $this->addSql('UPDATE site SET organisation_id = id');
        $this->addSql('ALTER TABLE site ALTER organisation_id SET NOT NULL');
    }

    /**
     * What somebody logs in with is theirs; who they are in a site is the account. What moved stays in its old place,
     * so that the version before goes on working while this one is put in; a later version takes it away.
     */
    private function people(): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE person (
                id UUID PRIMARY KEY,
                login TEXT NOT NULL,
                password TEXT NOT NULL,
                session_round INT NOT NULL DEFAULT 0,
                factor_secret TEXT,
                factor_step BIGINT NOT NULL DEFAULT 0,
                recovery_hashes JSONB NOT NULL DEFAULT '[]',
                invite_hash TEXT,
                invite_until TIMESTAMPTZ(0),
                last_account_id UUID
            )
            SQL);
        $this->addSql(<<<'SQL'
            INSERT INTO person (id, login, password, session_round, factor_secret, factor_step, recovery_hashes,
                invite_hash, invite_until, last_account_id)
            SELECT id, login, password, session_round, factor_secret, factor_step, recovery_hashes,
                invite_hash, invite_until, id FROM account
            SQL);
        $this->addSql('CREATE UNIQUE INDEX person_login ON person (lower(login))');
        $this->addSql('CREATE UNIQUE INDEX person_invite ON person (invite_hash) WHERE invite_hash IS NOT NULL');
        $this->addSql('ALTER TABLE account ADD person_id UUID REFERENCES person');
        $this->addSql('UPDATE account SET person_id = id');
        $this->addSql(<<<'SQL'
            ALTER TABLE account
                ALTER person_id SET NOT NULL,
                ALTER login DROP NOT NULL,
                ALTER password DROP NOT NULL,
                ADD languages TEXT NOT NULL DEFAULT ''
            SQL);
        $this->addSql('CREATE UNIQUE INDEX account_of_person ON account (person_id, site_id)');
        $this->addSql('ALTER TABLE account DROP CONSTRAINT IF EXISTS account_role_check');
        $this->addSql("ALTER TABLE account ADD CONSTRAINT account_role_check CHECK (role IN ('reader', 'inspector', 'crew', 'pitmaster', 'manager', 'owner'))");
    }

    /** It owns nothing, so it can neither turn a trigger off nor a wall down. */
    private function role(): void
    {
        $this->addSql(<<<'SQL'
            DO $$ BEGIN
                IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = 'verjuicer_app') THEN
                    CREATE ROLE verjuicer_app LOGIN;
                END IF;
            END $$
            SQL);
        $this->addSql('GRANT USAGE ON SCHEMA public TO verjuicer_app');
        $this->addSql('GRANT SELECT, INSERT ON '.implode(', ', self::RECORDED).' TO verjuicer_app');
        $this->addSql('GRANT SELECT, INSERT, UPDATE, DELETE ON '.implode(', ', self::OTHER).' TO verjuicer_app');
        $this->addSql('GRANT SELECT ON doctrine_migration_versions TO verjuicer_app');
        $this->addSql('GRANT USAGE ON ALL SEQUENCES IN SCHEMA public TO verjuicer_app');
    }

    private function walls(): void
    {
        foreach (self::OF_A_SITE as $table) {
            $this->addSql("ALTER TABLE $table ENABLE ROW LEVEL SECURITY");
            $this->addSql("CREATE POLICY of_site ON $table USING (site_id = ".self::SITE.')');
        }
        foreach (self::OF_SOMETHING as $table => $owner) {
            $this->addSql("ALTER TABLE $table ENABLE ROW LEVEL SECURITY");
            $this->addSql("CREATE POLICY of_site ON $table USING (EXISTS (SELECT FROM $owner o WHERE o.id = $table.{$owner}_id))");
        }
        $this->addSql('ALTER TABLE site ENABLE ROW LEVEL SECURITY');
        $this->addSql('CREATE POLICY of_site ON site USING (id = '.self::SITE.')');
        // Somebody sees where else they work.
        $this->addSql('CREATE POLICY mine ON account FOR SELECT USING (person_id = '.self::PERSON.')');
        $this->addSql(<<<'SQL'
            CREATE FUNCTION works_at(who UUID, there UUID) RETURNS BOOLEAN
            LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp AS $$
                SELECT EXISTS (SELECT FROM account WHERE person_id = who AND site_id = there)
            $$
            SQL);
        $this->addSql('CREATE POLICY mine ON site FOR SELECT USING (works_at('.self::PERSON.', id))');
        $this->addSql('ALTER TABLE organisation ENABLE ROW LEVEL SECURITY');
        $this->addSql('CREATE POLICY of_site ON organisation USING (EXISTS (SELECT FROM site s WHERE s.organisation_id = organisation.id)) WITH CHECK (TRUE)');
        // Whoever holds the secret of a tablet or of a shared packet sees that one.
        $this->addSql('CREATE POLICY held ON device FOR SELECT USING (token_hash = '.self::TOKEN.')');
        $this->addSql('CREATE POLICY held ON packet FOR SELECT USING (token_hash = '.self::TOKEN.')');
    }

    /** What is told of all sites at once, and nothing more than these numbers. */
    private function figures(): void
    {
        $this->addSql(<<<'SQL'
            CREATE FUNCTION whole_figures() RETURNS TABLE (entries BIGINT, open_batches BIGINT, behind BIGINT, last_link TIMESTAMPTZ)
            LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp AS $$
                SELECT (SELECT count(*) FROM event), (SELECT count(*) FROM open_tag),
                    (SELECT count(*) FROM projection_state WHERE made < head), (SELECT max(recorded_at) FROM chain_link)
            $$
            SQL);
        $this->addSql(<<<'SQL'
            CREATE FUNCTION works_elsewhere(who UUID, here UUID) RETURNS BOOLEAN
            LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp AS $$
                SELECT EXISTS (SELECT FROM account WHERE person_id = who AND site_id <> here AND disabled_at IS NULL)
            $$
            SQL);
        $this->addSql(<<<'SQL'
            CREATE FUNCTION has_own_site() RETURNS BOOLEAN
            LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp AS $$
                SELECT EXISTS (SELECT FROM site WHERE NOT is_practice)
            $$
            SQL);
    }
}
