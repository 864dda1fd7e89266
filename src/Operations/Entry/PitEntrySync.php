<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Ledger\Log\PitShare;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Ledger\Pit\PitHistory;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Event\Kinds\PitReading;
use Verjuicer\Core\Event\Kinds\PitSet;
use Verjuicer\Core\Food\PitSign;

/**
 * What is entered of a pit from a batch is of the pit: it goes to its log, and so to all that is in it. Put right or
 * taken back from the batch, it is so at the pit it went to, wherever the batch is by then.
 */
final readonly class PitEntrySync
{
    public function __construct(private Pits $pits, private PitHistory $history, private SiteLog $log)
    {
    }

    public function share(RecordedEntry $kept, Account $by): void
    {
        $draft = $kept->draft;
        [$name, $sign, $temp, $words] = match (true) {
            $draft->detail instanceof PitReading => [$draft->detail->pit, PitSign::Reading, $draft->detail->temp, ''],
            $draft->detail instanceof PitSet => [$draft->detail->pit, PitSign::Set, $draft->detail->set, ''],
            $draft->detail instanceof Note => [
                $draft->detail->pit,
                $draft->detail->pitSign,
                null,
                $draft->detail->text ?? '',
            ],
            default => [null, null, null, ''],
        };
        $pit = $name === null || $sign === null ? null : $this->pits->named($kept->batch->site, $name);
        $earlier =
            $draft->replaces === null ? null : $this->log->find(PitShare::idAtPit(Uuid::fromString($draft->replaces)));
        $reason = $draft->reason ?? '';
        if ($earlier !== null && $earlier->subjectId !== $pit?->id->toRfc4122()) {
            $of = $this->pits->find($kept->batch->site, $earlier->subjectId);
            \assert($of !== null, 'a pit with a log is never removed');
            $this->history->takeBack(Uuid::v5($draft->id, 'back at pit'), $of, $by, $earlier, $reason);
            $earlier = null;
        }
        if ($pit !== null && $sign !== null) {
            $this->history->add(
                PitShare::idAtPit($draft->id),
                $pit,
                $by,
                $draft->at,
                $sign->value,
                $temp,
                $words,
                $earlier,
                $reason,
            );
        }
    }
}
