<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Pit;

use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Ledger\Log\SiteEvent;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\Core\Pit\PitEntry;
use Verjuicer\Core\Pit\PitLog;
use Verjuicer\Core\Pit\PitSign;

/** What was written down at pits. */
final readonly class PitHistory
{
    private const MOST = 600;

    public function __construct(private SiteLog $log)
    {
    }

    /** @return list<SiteEvent> by time, the latest of them */
    public function of(Pit $pit): array
    {
        return $this->log->of($pit->id, self::MOST);
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
