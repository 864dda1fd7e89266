<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Entry;

use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Log\PitShare;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Ledger\Pit\PitStays;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Event\Kinds\PitReading;
use Verjuicer\Core\Event\Kinds\PitSet;
use Verjuicer\Core\Event\Kinds\TakenBack;
use Verjuicer\Core\Food\PitSign;
use Verjuicer\Core\Measure\Temperature;

/** What is entered of a pit from a batch is of the pit: it goes to its log, and so to all that is in it. */
final readonly class AtPit
{
    public function __construct(private Pits $pits, private PitStays $stays, private SiteLog $log, private Ledger $ledger)
    {
    }

    public function share(Kept $kept, Account $by): void
    {
        $draft = $kept->draft;
        [$name, $sign, $members] = match (true) {
            $draft->detail instanceof PitReading => [$draft->detail->pit, PitSign::Reading->value, self::temp($draft->detail->temp)],
            $draft->detail instanceof PitSet => [$draft->detail->pit, PitSign::Set->value, self::temp($draft->detail->set)],
            $draft->detail instanceof Note && $draft->detail->pitSign !== null => [
                $draft->detail->pit, $draft->detail->pitSign->value, $draft->detail->text === null ? [] : ['words' => $draft->detail->text],
            ],
            $draft->detail instanceof TakenBack => [$this->stays->pitAt($kept->batch, $draft->at), 'void', []],
            default => [null, null, []],
        };
        $pit = $name === null ? null : $this->pits->named($kept->batch->site, $name);
        if ($pit === null || $sign === null) {
            return;
        }
        if ($draft->replaces !== null) {
            $members['replaces'] = PitShare::idAtPit(Uuid::fromString($draft->replaces))->toRfc4122();
            $members['reason'] = $draft->reason ?? '';
        }
        if ($this->log->add(PitShare::idAtPit($draft->id), 'pit', $pit->id, $by, $draft->at, $sign, $members)) {
            array_map($this->ledger->changed(...), $this->stays->mayHaveBeenIn($pit, $draft->at));
        }
    }

    /** @return array{temp: array<string, int|float>} */
    private static function temp(Temperature $temp): array
    {
        return ['temp' => [$temp->unit->member() => $temp->tenths / 10]];
    }
}
