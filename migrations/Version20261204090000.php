<?php

declare(strict_types=1);

namespace Verjuicer\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261204090000 extends AbstractMigration
{
    /** What may be changed and is in the chain as it was after each change, and what of a row is not part of that. */
    private const KEPT = [
        'site' => ['changed_at'],
        'account' => ['password', 'session_round', 'factor_secret', 'factor_step', 'recovery_hashes', 'invite_hash',
            'invite_until', 'pin_hash', 'languages'],
        'thermometer' => [],
        'product' => [],
        'recipe' => [],
        'pit' => [],
        'hold_unit' => [],
        'supplier' => [],
        'packet' => ['done', 'total', 'finished_at', 'problem', 'pdf', 'token_hash', 'expires_at'],
        'label' => ['svg'],
    ];

    public function getDescription(): string
    {
        return 'What a kitchen has, its people and settings, packets and labels are in the chain, too';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE row_kept (
                id UUID PRIMARY KEY,
                site_id UUID NOT NULL REFERENCES site,
                of_table TEXT NOT NULL,
                row_id UUID NOT NULL,
                content JSONB NOT NULL,
                recorded_at TIMESTAMPTZ(0) NOT NULL,
                seq BIGINT GENERATED ALWAYS AS IDENTITY
            )
            SQL);
        $this->addSql('CREATE INDEX row_kept_of ON row_kept (site_id, of_table, row_id, seq)');
        $this->addSql('ALTER TABLE row_kept ENABLE ROW LEVEL SECURITY');
        $this->addSql("CREATE POLICY of_site ON row_kept USING (site_id = nullif(current_setting('verjuicer.site', true), '')::uuid)");
        $this->addSql('GRANT SELECT, INSERT ON row_kept TO verjuicer_app');
        $this->addSql("CREATE TRIGGER row_kept_chained AFTER INSERT ON row_kept FOR EACH ROW EXECUTE FUNCTION chain_row('recorded_at')");
        $this->addSql('CREATE TRIGGER row_kept_only_added BEFORE UPDATE OR DELETE ON row_kept FOR EACH ROW EXECUTE FUNCTION refuse_change()');
        $this->addSql('CREATE TRIGGER row_kept_never_emptied BEFORE TRUNCATE ON row_kept FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()');
        // Its moment is that of the last link, or no moment: whoever writes it has no clock, and a link is never of an earlier one.
        $this->addSql(<<<'SQL'
            CREATE FUNCTION keep_row() RETURNS trigger LANGUAGE plpgsql SET timezone = 'UTC' AS $$
            DECLARE content JSONB; of_site UUID; without TEXT[] := coalesce(TG_ARGV, ARRAY[]::TEXT[]);
            BEGIN
                content := to_jsonb(NEW) - without;
                IF TG_OP = 'UPDATE' AND content = to_jsonb(OLD) - without THEN
                    RETURN NULL;
                END IF;
                of_site := CASE TG_TABLE_NAME WHEN 'site' THEN NEW.id ELSE (to_jsonb(NEW)->>'site_id')::uuid END;
                INSERT INTO row_kept (id, site_id, of_table, row_id, content, recorded_at)
                VALUES (gen_random_uuid(), of_site, TG_TABLE_NAME, NEW.id, content, coalesce(
                    (SELECT recorded_at FROM chain_link WHERE site_id = of_site ORDER BY position DESC LIMIT 1), to_timestamp(0)));
                RETURN NULL;
            END
            $$
            SQL);
        foreach (self::KEPT as $table => $without) {
            $names = implode(', ', array_map(static fn (string $one): string => "'$one'", $without));
            $list = $without === [] ? 'ARRAY[]::text[]' : "ARRAY[$names]";
            $site = $table === 'site' ? 'id' : 'site_id';
            $this->addSql(<<<SQL
                INSERT INTO row_kept (id, site_id, of_table, row_id, content, recorded_at)
                SELECT gen_random_uuid(), r.$site, '$table', r.id, to_jsonb(r) - $list, coalesce(
                  (SELECT l.recorded_at FROM chain_link l WHERE l.site_id = r.$site ORDER BY l.position DESC LIMIT 1), to_timestamp(0))
                FROM $table r ORDER BY r.id
                SQL);
            $this->addSql("CREATE TRIGGER {$table}_kept AFTER INSERT OR UPDATE ON $table FOR EACH ROW EXECUTE FUNCTION keep_row($names)");
        }
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException('Records are never removed.');
    }
}
