<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Entry;

use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Now;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Assess\Evidence\Trace;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Ruleset\Doubt;
use Verjuicer\Core\Ruleset\HouseLimits;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/** Which readings are hardly possible: off the scale of meat, in another unit, or too far from the one before on their track. */
final readonly class Doubts
{
    public function __construct(private StoredRecords $records, private RuleSetLibrary $ruleSets, private Now $now)
    {
    }

    /**
     * @param list<Draft> $drafts
     *
     * @return array<int, non-empty-list<Doubt>> by the place of the entry; the plausible ones are not there
     */
    public function of(Batch $batch, array $drafts): array
    {
        $readings = array_filter($drafts, static fn (Draft $draft): bool => $draft->detail instanceof Reading);
        if ($readings === []) {
            return [];
        }
        $plausible = $this->ruleSets->get($batch->ruleSet)->get(HouseLimits::class)->plausible;
        $tracks = $this->tracks($batch);
        $replaced = array_fill_keys(array_map(static fn (Draft $draft): ?string => $draft->replaces, $drafts), true);
        $doubtful = [];
        $entered = [];
        foreach ($readings as $index => $draft) {
            \assert($draft->detail instanceof Reading, 'only these were chosen');
            $track = $draft->detail->piece.'/'.$draft->detail->spot;
            [$before, $beforeAt] = self::before($tracks[$track] ?? null, $replaced, $draft->at, $entered[$track] ?? null);
            $doubts = $plausible->doubts($draft->detail->temp, $draft->at, $batch->site->unit, $before, $beforeAt);
            if ($doubts !== []) {
                $doubtful[$index] = $doubts;
            }
            $entered[$track] = [$draft->detail->temp, $draft->at];
        }

        return $doubtful;
    }

    /** @return array<string, Trace> */
    private function tracks(Batch $batch): array
    {
        return (new Trace(Timeline::of($this->records->of($batch), $this->now->instant())->readings))->byTrack();
    }

    /**
     * The latest reading of a track until a moment: of those kept, or the one just entered with it.
     *
     * @param array<string, true>                                      $replaced
     * @param array{\Verjuicer\Core\Measure\Temperature, Instant}|null $entered
     *
     * @return array{\Verjuicer\Core\Measure\Temperature|null, Instant|null}
     */
    private static function before(?Trace $track, array $replaced, Instant $at, ?array $entered): array
    {
        $kept = null;
        foreach ($track->readings ?? [] as $reading) {
            if ($reading->at <= $at->epoch && !isset($replaced[$reading->id])) {
                $kept = $reading;
            }
        }
        $isEnteredLater = $entered !== null && !$entered[1]->isAfter($at) && ($kept === null || $entered[1]->epoch >= $kept->at);

        return $isEnteredLater ? $entered : [$kept?->temp, $kept?->instant()];
    }
}
