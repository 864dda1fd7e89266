<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Pit;

use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Log\SiteEvent;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Food\PitSign;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Pit\PitEntry;
use Verjuicer\Core\Pit\PitLog;

/** Entries at pits; they belong to all batches in the pit at the time. */
final readonly class PitHistory
{
    private const MOST = 600;

    public function __construct(private SiteLog $log, private PitStays $stays, private Ledger $ledger)
    {
    }

    /**
     * @param Uuid $id made by the client: the same again is kept once
     * @param string $type a PitSign, or 'void'
     * @param SiteEvent|null $instead the corrected event, with a reason; it stays in the log, struck through
     *
     * @throws \Verjuicer\App\Ledger\Log\EventConflict if it lies ahead of now
     */
    public function add(
        Uuid $id,
        Pit $pit,
        Account $by,
        Instant $at,
        string $type,
        ?Temperature $temp = null,
        string $words = '',
        ?SiteEvent $instead = null,
        string $reason = '',
    ): void {
        $members =
            ($temp === null ? [] : ['temp' => [$temp->unit->member() => $temp->tenths / 10]])
            + ($words === '' ? [] : ['words' => $words])
            + ($instead === null ? [] : ['replaces' => $instead->id, 'reason' => $reason]);
        $this->ledger->write($pit->site, function () use ($id, $pit, $by, $at, $type, $members, $instead): void {
            if ($this->log->add($id, 'pit', $pit->id, $by, $at, $type, $members)) {
                $touched = $this->stays->mayHaveBeenIn($pit, $at);
                if ($instead !== null && $instead->at->epoch !== $at->epoch) {
                    $touched = array_unique([...$touched, ...$this->stays->mayHaveBeenIn($pit, $instead->at)]);
                }
                array_map($this->ledger->changed(...), $touched);
            }
        });
    }

    /** @param Uuid $id made by the client: the same again is kept once */
    public function takeBack(Uuid $id, Pit $pit, Account $by, SiteEvent $wrong, string $reason): void
    {
        $this->add($id, $pit, $by, $wrong->at, 'void', instead: $wrong, reason: $reason);
    }

    /** @return list<SiteEvent> the latest by time, without voided or corrected ones */
    public function of(Pit $pit): array
    {
        $all = $this->log->of($pit->id, self::MOST);
        $replaced = array_fill_keys(
            array_map(static fn (SiteEvent $one): string => $one->text('replaces') ?? '', $all),
            true,
        );

        return array_values(
            array_filter(
                $all,
                static fn (SiteEvent $one): bool => $one->type !== 'void' && !isset($replaced[$one->id]),
            ),
        );
    }

    public function log(Pit $pit): PitLog
    {
        return self::read($this->of($pit));
    }

    /** @param list<SiteEvent> $history */
    public static function read(array $history): PitLog
    {
        $entries = [];
        foreach ($history as $event) {
            $sign = PitSign::tryFrom($event->type);
            if ($sign !== null) {
                $entries[] = new PitEntry($event->at, $sign, $event->temperature('temp'));
            }
        }

        return new PitLog($entries);
    }
}
