<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Proof;

use Doctrine\DBAL\Connection;
use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Ledger\Chain\ChainBreak;
use Verjuicer\App\Ledger\Chain\ChainVerifier;
use Verjuicer\App\Ledger\Chain\KeyLog;
use Verjuicer\App\Ledger\Chain\MutableRows;
use Verjuicer\App\Ledger\Chain\Rollback;
use Verjuicer\App\Ledger\Chain\Rollbacks;
use Verjuicer\App\Ledger\Chain\SealLog;
use Verjuicer\App\Ledger\Chain\SealPublisher;
use Verjuicer\App\Ledger\Chain\SignedSeal;
use Verjuicer\App\Ledger\Chain\SiteChain;
use Verjuicer\App\Ledger\Series\SeriesBlocks;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Projection\Lane\LaneAudit;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;

/**
 * Verifies the chain of a site, compares it with the signed seals and sensor data with its blocks, and lists faults:
 * with batch, tag and time if known.
 */
final readonly class Verification
{
    public function __construct(
        private SiteChain $chain,
        private ChainVerifier $walk,
        private MutableRows $rows,
        private SignedDays $days,
        private RecordedFiles $files,
        private SeriesBlocks $blocks,
        private SealLog $seals,
        private Rollbacks $rollbacks,
        private SealPublisher $post,
        private KeyLog $keys,
        private LaneAudit $lanes,
        private Connection $connection,
        private TranslatorInterface $translator,
        private MeasureFormatter $figures,
        private Now $now,
    ) {
    }

    /**
     * @param bool $judges whether every batch is judged again, too, and compared with the board
     * @param list<SignedSeal> $handed seals of this site that were kept elsewhere
     * @param bool $isCopy whether it is a copy of an earlier moment: later seals cannot match it
     */
    public function of(Site $site, bool $judges = true, array $handed = [], bool $isCopy = false): VerificationResult
    {
        $breaks = [];
        $until = $isCopy ? $this->chain->length($site) : \PHP_INT_MAX;
        $block = $this->blocks->firstBroken($site);
        if ($block !== null) {
            $breaks[] = $this->say('block', ['{block}' => $block]);
        }
        $hasKey = $this->keys->holds($site);
        if (!$hasKey) {
            $breaks[] = $this->say('key');
        }
        $kept = [
            'sealed' => array_reverse($this->seals->all($site)),
            'elsewhere' => [...$this->post->elsewhere($site), ...$handed],
        ];
        $rollbacks = $this->rollbacks->of($site);
        foreach ($kept as $where => $seals) {
            $seals = array_filter($seals, static fn (SignedSeal $seal): bool => $seal->position <= $until);
            $broken = $this->seals->firstBroken($site, self::unexplained(array_values($seals), $rollbacks));
            $breaks = [...$breaks, ...$this->sealed($site, $where, $broken)];
        }
        $break = $this->walk->firstBreak($site);
        if ($break !== null) {
            $breaks[] = $this->told($site, $break);
        }
        foreach ($this->rows->unauthored($site) as $change) {
            $breaks[] = $this->say('unauthored', [
                '{table}' => $change->table,
                '{row}' => $change->rowId,
                '{position}' => $change->position,
                '{when}' => $this->when($site, $change->at->epoch),
                '{changed}' => $change->changed === '' ? '' : " ($change->changed)",
            ]);
        }
        foreach ($this->days->unproved($site) as [$day, $initials]) {
            $breaks[] = $this->say('signature', ['{initials}' => $initials, '{day}' => $this->figures->date($day)]);
        }
        foreach ($this->files->altered($site) as $what) {
            $breaks[] = $this->say('file', ['{what}' => $what]);
        }
        $forged = $judges && $break === null ? $this->lanes->first($site) : null;
        if ($forged !== null) {
            $breaks[] = $this->say('lane', ['{batch}' => $forged]);
        }

        return new VerificationResult(
            $this->now->instant(),
            $this->chain->length($site),
            \count($this->seals->all($site)),
            $breaks,
            $this->notes($site),
            $hasKey,
        );
    }

    /**
     * The part of the check needed for signing a day: the links of that day, the seals over them and since, and rows
     * that may change.
     */
    public function between(Site $site, int $position, int $to): VerificationResult
    {
        $seals = array_values(
            array_filter(
                $this->seals->all($site),
                static fn (SignedSeal $seal): bool => $seal->position > $position,
            ),
        );
        $hasKey = $this->keys->holds($site);
        $break = $this->walk->firstBreakBetween($site, $position, $to);

        return new VerificationResult(
            $this->now->instant(),
            max(0, $to - $position),
            \count($seals),
            [
                ...($hasKey ? [] : [$this->say('key')]),
                ...$this->sealed($site, 'sealed', $this->seals->firstBroken(
                    $site,
                    self::unexplained(array_reverse($seals), $this->rollbacks->of($site)),
                )),
                ...($break === null ? [] : [$this->told($site, $break)]),
            ],
            [],
            $hasKey,
        );
    }

    /**
     * Seals of links that were put back on record are not in the chain any more.
     *
     * @param list<SignedSeal> $seals
     * @param list<Rollback> $rollbacks
     *
     * @return list<SignedSeal>
     */
    private static function unexplained(array $seals, array $rollbacks): array
    {
        return array_values(array_filter($seals, static function (SignedSeal $seal) use ($rollbacks): bool {
            foreach ($rollbacks as $rollback) {
                if ($rollback->explains($seal)) {
                    return false;
                }
            }

            return true;
        }));
    }

    /**
     * @return list<string> keys without a signature of their predecessor: an explained one is no fault, but is reported
     */
    private function notes(Site $site): array
    {
        $notes = [];
        foreach ($this->keys->of($site) as $change) {
            if (!$change->isVouchedFor()) {
                $notes[] = $this->say('unvouched', [
                    '{position}' => $change->position,
                    '{reason}' => $change->reason,
                ]);
            }
        }

        foreach ($this->rollbacks->of($site) as $rollback) {
            $notes[] = $this->say('rollback', [
                '{kept}' => $rollback->kept,
                '{cut}' => $rollback->cut,
                '{when}' => $this->when($site, $rollback->savedAt),
            ]);
        }

        return $notes;
    }

    /** @return list<string> */
    private function sealed(Site $site, string $key, ?SignedSeal $seal): array
    {
        return $seal === null ? [] : [
            $this->say($key, ['{position}' => $seal->position, '{when}' => $this->when($site, $seal->at)]),
        ];
    }

    private function told(Site $site, ChainBreak $break): string
    {
        /** @var array{tag: int, code: string, type: string, at: int}|false $event */
        $event = $break->kind !== 'event' ? false : $this->connection->fetchAssociative(
            'SELECT b.tag, b.code, e.type, extract(epoch FROM e.at)::bigint AS at
             FROM event e JOIN batch b ON b.id = e.batch_id WHERE e.id = ?',
            [$break->rowId],
        );

        return $this->say('chain', [
            '{position}' => $break->position,
            '{kind}' => $break->kind,
            '{row}' => $break->rowId,
            '{what}' => $this->say('what.'.$break->what),
            '{detail}' => $break->detail === '' ? '' : " ($break->detail)",
            '{of}' => $event === false ? '' : $this->say('of', [
                '{tag}' => $event['tag'],
                '{batch}' => $event['code'],
                '{type}' => $this->translator->trans("event.{$event['type']}.name"),
                '{when}' => $this->when($site, $event['at']),
            ]),
        ]);
    }

    private function when(Site $site, int $epoch): string
    {
        $at = Instant::ofEpoch($epoch);

        return $this->figures->date(LocalDate::ofInstant($at, $site->zone()))
            .' '.$this->figures->time($at, $site->zone());
    }

    /** @param array<string, string|int> $values */
    private function say(string $key, array $values = []): string
    {
        return $this->translator->trans('proof.'.$key, $values);
    }
}
