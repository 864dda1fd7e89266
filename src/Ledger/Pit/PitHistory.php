<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Pit;

use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Ledger\Log\SiteEvent;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\Core\Food\PitSign;
use Verjuicer\Core\Pit\PitEntry;
use Verjuicer\Core\Pit\PitLog;

/** What was written down at pits. */
final readonly class PitHistory
{
    private const MOST = 600;

    public function __construct(private SiteLog $log)
    {
    }

    /** @return list<SiteEvent> by time, the latest of them, without what was taken back or put right */
    public function of(Pit $pit): array
    {
        $all = $this->log->of($pit->id, self::MOST);
        $replaced = array_fill_keys(array_map(static fn (SiteEvent $one): string => $one->text('replaces') ?? '', $all), true);

        return array_values(array_filter($all, static fn (SiteEvent $one): bool => $one->type !== 'void' && !isset($replaced[$one->id])));
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
