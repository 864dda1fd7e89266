<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\Core\Assess\Check\RawLeftoverCheck;
use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Kinds\Action;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Discard;
use Verjuicer\Core\Event\Kinds\HotHold;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Event\Kinds\PitReading;
use Verjuicer\Core\Event\Kinds\PitSet;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Event\Kinds\Serve;
use Verjuicer\Core\Food\CookWay;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Food\NoteStep;
use Verjuicer\Core\Record\Event;

/**
 * Fills in what an entry leaves out from what is known of its batch and its kitchen, and refuses what cannot be of it:
 * the spot and the thermometer read last, oven and set point of a pit, weight and allergens of a recipe, the kind of
 * place that a name stands for.
 */
final readonly class Completion
{
    public function __construct(private EntryContextSources $sources)
    {
    }

    /**
     * @param list<Draft> $drafts those that replace an event are whole already
     *
     * @return list<Draft>
     *
     * @throws EntryProblem if the batch has no such piece or spot, or the site no such pit or recipe
     */
    public function of(Batch $batch, array $drafts): array
    {
        $known = $this->sources->of($batch);
        $completed = [];
        foreach ($drafts as $draft) {
            $completed[] = $draft->replaces === null ? $draft->with(self::completed($draft, $known)) : $draft;
        }

        return $completed;
    }

    /**
     * A wrong event with what was changed about it, and all else as it was. What follows from a change follows: another
     * recipe brings its own allergens, none brings none.
     *
     * @param array<string, mixed> $changes by field name
     *
     * @throws EntryProblem if the batch has no such piece or spot, or the site no such pit or recipe
     */
    public function corrected(Batch $batch, Event $wrong, array $changes): Detail
    {
        $known = $this->sources->of($batch);
        $piece = $changes['piece'] ?? null;
        if (\is_int($piece)) {
            $known->requirePiece($piece);
        }
        if (isset($changes['spot'])) {
            $changes['spot'] = $known->spot($changes['spot']);
        }
        if (\is_string($changes['pit'] ?? null)) {
            $changes['pit'] = $known->pit($changes['pit'])->name;
        }
        if (\array_key_exists('recipe', $changes)) {
            $changes['allergens'] = [];
        }
        if (\is_string($changes['recipe'] ?? null)) {
            $changes = self::ofRecipe($changes['recipe'], $changes + $wrong->kind()->values($wrong->detail), $known);
        }

        return $wrong->corrected($changes);
    }

    private static function completed(Draft $draft, EntryContext $known): Detail
    {
        $detail = $draft->detail;
        $kind = EventKinds::of($detail::class);
        $values = $kind->values($detail);
        $values = self::ofHeld($draft, $values, $known);
        if ($detail instanceof Serve && self::isPart($detail, $known)) {
            return new Note(step: NoteStep::ServedPart, weightKg: $detail->weightKg, portions: $detail->portions);
        }
        if ($detail instanceof Discard && self::isPart($detail, $known)) {
            return new Note(step: NoteStep::DiscardedPart, weightKg: $detail->weightKg, why: $detail->why);
        }
        if ($detail instanceof Action && $detail->text === null && $detail->finding !== RawLeftoverCheck::RULE) {
            throw EntryProblem::noAction();
        }
        if (isset($values['spot'])) {
            $values['spot'] = $draft->isSpotOpen
                ? $known->usualSpot($values['piece'] ?? 1)
                : $known->spot($values['spot'], $draft->isSpotNew);
        }
        if ($detail instanceof Reading) {
            $values['thermometer'] =
                $detail->thermometer === null ? $known->handThermometer() : $known->thermometer($draft, $detail);
        }
        if (
            $detail instanceof PitReading
            || $detail instanceof PitSet
            || ($detail instanceof Note && $detail->pitSign !== null)
        ) {
            $values['pit'] ??= $known->pitAt($draft->at);
        }
        if (\is_string($values['pit'] ?? null)) {
            $values = self::ofPit($draft, $values['pit'], $values, $known);
        }
        if (\is_string($values['recipe'] ?? null)) {
            $values = self::ofRecipe($values['recipe'], $values, $known);
        }
        if (isset($kind->fields['holding'])) {
            $values['holding'] ??= self::holding($detail, $values['method'] ?? ($values['place'] ?? null), $known);
        }

        return $kind->make($values);
    }

    /**
     * @param array<string, mixed> $values
     *
     * @return array<string, mixed>
     */
    private static function ofPit(Draft $draft, string $name, array $values, EntryContext $known): array
    {
        $pit = $known->pit($name);
        $values['pit'] = $pit->name;
        if ($draft->detail instanceof Cook) {
            // Over direct heat it is in no oven, whatever stands around it.
            $values['oven'] ??= $draft->detail->way === CookWay::Sear ? null : $pit->kind;
            $values['set'] ??= $known->logOf($pit)->setAt($draft->at);
        }

        return $values;
    }

    /**
     * @param array<string, mixed> $values
     *
     * @return array<string, mixed>
     */
    private static function ofRecipe(string $name, array $values, EntryContext $known): array
    {
        $recipe = $known->recipe($name);
        $values['recipe'] = $recipe->name;
        $values['allergens'] = $recipe->allergens();
        if (\array_key_exists('weight_kg', $values) && $known->grams() !== null && $recipe->gramsPerKg > 0) {
            $values['weight_kg'] ??= $recipe->weightFor($known->grams());
        }

        return $values;
    }

    /** The kind of place that words name, where they are the name of a unit or of a kind of place and nothing else. */
    private static function holding(Detail $detail, mixed $words, EntryContext $known): ?Holding
    {
        if (!\is_string($words)) {
            return null;
        }
        $unit = $detail instanceof HotHold ? $known->unit($words)?->kind : null;

        return $unit ?? Holding::named($words);
    }

    /**
     * Whether what was served or discarded is only some of it: less than is left, as far as that was weighed, and
     * nobody says that it was all.
     */
    private static function isPart(Serve|Discard $gone, EntryContext $known): bool
    {
        $portions = $gone instanceof Serve ? $gone->portions : null;
        if ($gone->all || ($gone->weightKg === null && $portions === null)) {
            return false;
        }
        $left = $known->gramsLeft() ?? $known->grams();

        return $gone->weightKg === null || $left === null || $gone->weightKg->grams() < $left;
    }

    /**
     * The piece it is about: one that the batch holds; of what was pulled, none is named.
     *
     * @param array<string, mixed> $values
     *
     * @return array<string, mixed>
     */
    private static function ofHeld(Draft $draft, array $values, EntryContext $known): array
    {
        $piece = $values['piece'] ?? null;
        if (!\is_int($piece)) {
            return $values;
        }
        if ($draft->isPieceOpen) {
            return ['piece' => $known->usualPiece($piece)] + $values;
        }
        $known->requirePiece($piece);

        return $values;
    }
}
