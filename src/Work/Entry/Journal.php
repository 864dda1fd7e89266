<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Entry;

use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Catalogue\Recipe\Recipes;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\EventConflict;
use Verjuicer\App\Ledger\Log\EventLog;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Assess\Evidence\Trace;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Detail;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Ruleset\Doubt;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/** Where entries of people become events: checked against the batch, doubted once where implausible, then kept. */
final readonly class Journal
{
    public function __construct(
        private EventLog $log,
        private StoredRecords $records,
        private RuleSetLibrary $ruleSets,
        private Thermometers $thermometers,
        private Pits $pits,
        private Recipes $recipes,
        private Products $products,
        private Now $now,
    ) {
    }

    /**
     * The entry with what it leaves out filled in: the thermometer the batch was last read with, the oven and set point of the pit
     * it goes into, the weight and the allergens of a recipe.
     *
     * @throws EntryProblem if the batch has no such piece, or the site no such pit or recipe
     */
    public function completed(Batch $batch, Entry $entry): Entry
    {
        self::requirePiece($batch, $entry);

        $pit = $entry->extras['pit'] ?? null;
        $recipe = $entry->extras['recipe'] ?? null;

        return match (true) {
            $entry->detail instanceof Detail\Reading => $this->located($batch, $entry, $entry->detail),
            $entry->detail instanceof Detail\Cook && \is_string($pit) => $entry->with(...$this->pits->loaded($batch->site, $pit, $entry->detail, $entry->at($this->now->instant()))),
            \is_string($recipe) => $this->withRecipe($batch, $entry, $recipe),
            default => $entry,
        };
    }

    /**
     * A reading at a spot: the one named, if the product has it or this batch was read there; else the one last read on that piece, else the
     * product's first. A word that is none is not taken for one.
     */
    private function located(Batch $batch, Entry $entry, Detail\Reading $reading): Entry
    {
        $ofProduct = array_column($this->products->ofBatch($batch)->spots ?? [], 'name');
        $read = $this->records->spotsRead($batch);
        $onPiece = array_filter($read, static fn (array $one): bool => $one['piece'] === $reading->piece);
        $spot = $entry->isSpotOpen ? array_values($onPiece)[0]['spot'] ?? $ofProduct[0] ?? Entry::SPOT : $reading->spot;
        $known = [...($ofProduct === [] ? [Entry::SPOT] : $ofProduct), ...array_column($read, 'spot')];
        if (!\in_array($spot, $known, true)) {
            throw preg_match('/^\pL{1,3}-?\d+$/u', $spot) === 1 ? EntryProblem::unknownThermometer($spot) : EntryProblem::unknownSpot($spot, $known);
        }

        return $entry->with(new Detail\Reading($reading->temp, $reading->piece, $spot, $reading->thermometer ?? $this->thermometers->lastUsedIn($batch)), $entry->extras);
    }

    /** A correction, with what follows from what it changes: another recipe brings its own allergens, none brings none. */
    public function corrected(Batch $batch, Entry $entry, Event $wrong): Entry
    {
        self::requirePiece($batch, $entry);
        $recipe = $entry->extras['recipe'] ?? null;
        if ($recipe === ($wrong->unknown['recipe'] ?? null)) {
            return $entry;
        }
        $without = $entry->with($entry->detail, array_diff_key($entry->extras, ['allergens' => 1]));

        return \is_string($recipe) ? $this->withRecipe($batch, $without, $recipe) : $without;
    }

    private function withRecipe(Batch $batch, Entry $entry, string $name): Entry
    {
        $recipe = $this->recipes->named($batch->site, $name) ?? throw EntryProblem::unknownRecipe($name);
        $grams = $batch->rawGrams === null ? null : $recipe->scaledTo($batch->rawGrams * $batch->pieces)->grams;
        $extras = ['recipe' => $recipe->name] + $entry->extras + ['weight_kg' => $grams === null ? null : $grams / 1000, 'allergens' => $recipe->allergens()];

        return $entry->with($entry->detail, array_filter($extras, static fn (mixed $extra): bool => $extra !== null && $extra !== []));
    }

    /** @return list<Doubt> why this entry may be a slip; none where it is plausible */
    public function doubts(Batch $batch, Entry $entry): array
    {
        if (!$entry->detail instanceof Detail\Reading) {
            return [];
        }
        $reading = $entry->detail;
        $at = $entry->at($this->now->instant());
        $track = (new Trace(Timeline::of($this->records->of($batch), $at)->readings))->byTrack()[$reading->piece.'/'.$reading->spot] ?? null;
        $before = $track?->last();

        return $this->ruleSets->get($batch->ruleSet)->house->plausible->doubts(
            $reading->temp,
            $at,
            $batch->site->unit,
            $before?->temp,
            $before === null ? null : Instant::ofEpoch($before->at),
        );
    }

    /**
     * Keeps an entry under the id its client gave it; again under the same id it is kept once.
     *
     * @throws EventConflict if the id belongs to another entry
     */
    public function keep(Batch $batch, Account $by, Uuid $id, Entry $entry): Event
    {
        $now = $this->now->instant();
        $event = $entry->event($id->toRfc4122(), $now, $by->initials);
        $this->log->append($batch, $by, $now, $event);

        return $event;
    }

    /**
     * Puts a wrong entry right by a further event; the wrong one stays in the record.
     *
     * @throws EntryProblem  if it would have happened in the future
     * @throws EventConflict if the id belongs to another entry, or the batch cannot be as it would then be
     */
    public function replace(Batch $batch, Account $by, Uuid $id, Event $wrong, Entry $entry, Instant $at, string $reason): void
    {
        $now = $this->now->instant();
        if ($at->isAfter($now)) {
            throw EntryProblem::inTheFuture();
        }
        $this->log->append($batch, $by, $now, new Event($id->toRfc4122(), $at, $by->initials, $wrong->type, $entry->detail, $wrong->id, $reason, $entry->extras));
    }

    /**
     * Takes an entry back by a further event; the entry itself stays in the record.
     *
     * @throws EventConflict if the id belongs to another entry, or the batch cannot be as it would then be
     */
    public function void(Batch $batch, Account $by, Uuid $id, Event $wrong, string $reason): void
    {
        $now = $this->now->instant();
        $this->log->append($batch, $by, $now, new Event($id->toRfc4122(), $now, $by->initials, EventType::Void, Detail\Bare::of(), $wrong->id, $reason));
    }

    private static function requirePiece(Batch $batch, Entry $entry): void
    {
        if (($entry->detail instanceof Detail\Reading || $entry->detail instanceof Detail\ProbeMoved) && $entry->detail->piece > $batch->pieces) {
            throw EntryProblem::unknownPiece($entry->detail->piece, $batch->pieces);
        }
    }
}
