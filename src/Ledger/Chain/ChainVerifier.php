<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Proof\Statement;

/** Verifies the chain of a site from its first link, and finds rows without a link. */
final readonly class ChainVerifier
{
    public function __construct(private Connection $connection, private ChainLinks $links, private MutableRows $rows)
    {
    }

    /**
     * Walks the chain from its first link.
     *
     * @return ChainBreak|null null where it holds
     */
    public function firstBreak(Site $site): ?ChainBreak
    {
        return $this->links->inUtc(
            fn (): ?ChainBreak => $this->walk($site)
                ?? $this->unchained($site)
                ?? $this->brokenSeal($site)
                ?? $this->movedLink($site)
                ?? $this->rows->firstDifference($site),
        );
    }

    /**
     * From behind a place, which is taken as it is (seals say whether it may be), to another.
     *
     * @return ChainBreak|null null where it holds
     */
    public function firstBreakBetween(Site $site, int $position, int $to): ?ChainBreak
    {
        return $this->links->inUtc(
            fn (): ?ChainBreak => $this->walk($site, $position, $to)
                ?? $this->brokenSeal($site)
                ?? $this->rows->firstDifference($site),
        );
    }

    /** Kinds that are recorded even while the clock is refused. */
    private const ANY_TIME = [
        'clock_word', 'day_close', 'site_key', 'site_change', 'account_change', 'row_kept', 'row_author',
    ];

    /** How a lot arrived and was kept stands in its batches as it was recorded in the lot. */
    private const OF_LOT = '/"type": "(received|cold_hold|freeze|thaw)"/';

    private function walk(Site $site, int $position = 0, ?int $to = null): ?ChainBreak
    {
        $hash = '';
        $before = '';
        foreach ($position === 0 ? [] : $this->links->between($site, $position, $position) as $link) {
            $hash = (string) hex2bin($link['hash']);
        }
        while (($links = $this->links->after($site, $position, $to)) !== []) {
            foreach ($links as $link) {
                if ($link['position'] !== ++$position) {
                    return new ChainBreak('missing_link', $position, $link['kind'], $link['row_id']);
                }
                if ($link['canonical'] === null) {
                    return new ChainBreak('missing_row', $position, $link['kind'], $link['row_id']);
                }
                $digest = $link['form'] === 1 ? null : hash('sha256', $link['canonical']);
                if ($digest === null) {
                    $hash = hash('sha256', $hash.$link['canonical'], true);
                } else {
                    $words = Statement::link(
                        $site->id->toRfc4122(),
                        $position,
                        $link['kind'],
                        $link['row_id'],
                        $link['recorded'],
                        $digest,
                    );
                    $hash = hash('sha256', $hash.$words, true);
                }
                if (!hash_equals($link['hash'], bin2hex($hash)) || $digest !== $link['row_digest']) {
                    $what = $digest === $link['row_digest'] && $digest !== null ? 'altered_link' : 'altered';

                    return new ChainBreak($what, $position, $link['kind'], $link['row_id']);
                }
                if (self::isBackInTime($link, $before)) {
                    return new ChainBreak('back_in_time', $position, $link['kind'], $link['row_id']);
                }
                $before = $link['recorded'];
            }
        }

        return null;
    }

    /**
     * Whether a link is of an earlier moment than the one before it, by more than a clock is ever put back.
     *
     * @param array{kind: string, recorded: string, form: int, canonical: string|null} $link
     */
    private static function isBackInTime(array $link, string $before): bool
    {
        return $link['form'] !== 1
            && $before !== ''
            && !\in_array($link['kind'], self::ANY_TIME, true)
            && preg_match(self::OF_LOT, $link['canonical'] ?? '') !== 1
            && Instant::parse($link['recorded'])->epoch
                < Instant::parse($before)->epoch - RecordingClock::BEHIND_SECONDS;
    }

    /** A row that was put in without its link. */
    private function unchained(Site $site): ?ChainBreak
    {
        foreach (ChainLinks::KINDS as $kind) {
            $ofSite = match ($kind) {
                'event', 'batch_lot' => 'EXISTS (SELECT 1 FROM batch b WHERE b.id = r.batch_id AND b.site_id = :site)',
                'thermometer_check' => 'EXISTS ('
.'SELECT 1 FROM thermometer t WHERE t.id = r.thermometer_id AND t.site_id = :site)',
                default => 'r.site_id = :site',
            };
            $id = $this->connection->fetchOne(
                "SELECT r.id FROM $kind r WHERE $ofSite AND NOT EXISTS ("
."SELECT 1 FROM chain_link l WHERE l.kind = '$kind' AND l.row_id = r.id) LIMIT 1",
                ['site' => $site->id->toRfc4122()],
            );
            if (\is_string($id)) {
                return new ChainBreak('not_chained', 0, $kind, $id);
            }
        }

        return null;
    }

    /**
     * A link of the first form is of the moment its row was recorded, or of that of the link before it where that is
     * later: any other time was put there afterwards. Later ones have their time in their hash.
     */
    private function movedLink(Site $site): ?ChainBreak
    {
        $moments = '';
        foreach (ChainLinks::KINDS as $kind) {
            $moment = match ($kind) {
                'batch' => 'begun_at',
                'day_sign', 'day_said' => 'at',
                'batch_lot' => null,
                default => 'recorded_at',
            };
            $moments .= $moment === null
                ? ''
                : " WHEN '$kind' THEN (SELECT r.$moment FROM $kind r WHERE r.id = l.row_id)";
        }
        /** @var array{position: int, kind: string, row_id: string}|false $moved */
        $moved = $this->connection->fetchAssociative(
            <<<SQL
            WITH timed AS (
                SELECT l.position, l.kind, l.row_id, l.recorded_at, CASE l.kind $moments END AS of_row,
                       lag(l.recorded_at) OVER (ORDER BY l.position) AS before
                FROM chain_link l WHERE l.site_id = ? AND l.form = 1
            )
            SELECT position, kind, row_id FROM timed
            WHERE recorded_at < before OR recorded_at IS DISTINCT FROM greatest(of_row, before) AND of_row IS NOT NULL
            ORDER BY position LIMIT 1
            SQL,
            [$site->id->toRfc4122()],
        );

        return $moved === false
            ? null
            : new ChainBreak('link_time', $moved['position'], $moved['kind'], $moved['row_id']);
    }

    /** The digest of a signed or closed day is not the one at its place: the whole chain was remade. */
    private function brokenSeal(Site $site): ?ChainBreak
    {
        /** @var array{kind: string, id: string, position: int}|false $broken */
        $broken = $this->connection->fetchAssociative(
            <<<'SQL'
            SELECT s.kind, s.id, s.position FROM (
                SELECT 'day_sign' AS kind, id, position, digest FROM day_sign WHERE site_id = :site
                UNION ALL SELECT 'day_close', id, last_position, digest FROM day_close WHERE site_id = :site
            ) AS s LEFT JOIN chain_link l ON l.site_id = :site AND l.position = s.position
            WHERE encode(l.hash, 'hex') IS DISTINCT FROM s.digest AND s.position > 0 ORDER BY s.position LIMIT 1
            SQL,
            ['site' => $site->id->toRfc4122()],
        );

        return $broken === false ? null : new ChainBreak('seal', $broken['position'], $broken['kind'], $broken['id']);
    }
}
