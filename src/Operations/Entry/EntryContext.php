<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Verjuicer\App\Catalogue\Holding\HoldUnit;
use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Recipe\Recipe;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Pit\PitLog;

/**
 * What is known of one batch and its kitchen while entries are completed: asked for when it is needed, and once however
 * many they are.
 */
final class EntryContext
{
    /** @var array<string, mixed> */
    private array $answers = [];

    public function __construct(
        private readonly EntryContextSources $from,
        private readonly \Verjuicer\App\Ledger\Batch\Batch $batch,
    ) {
    }

    /**
     * @throws EntryProblem if the batch does not hold it, or was pulled and holds no pieces any more
     */
    public function requirePiece(int $piece): void
    {
        if ($this->isOneMass() && $piece !== $this->held()[0]) {
            throw EntryProblem::oneMass($piece);
        }
        if (!\in_array($piece, $this->held(), true)) {
            throw EntryProblem::unknownPiece($piece, $this->held());
        }
    }

    /** The piece that is meant where nobody says: this one if the batch holds it, else the first it holds. */
    public function usualPiece(int $piece): int
    {
        return \in_array($piece, $this->held(), true) && !$this->isOneMass() ? $piece : $this->held()[0];
    }

    /** What it weighs, as far as it was noted: of a portion, what is in it. */
    public function grams(): ?int
    {
        $raw = $this->batch->rawGrams;

        return $this->batch->portionGrams ?? ($raw === null ? null : $raw * \count($this->held()));
    }

    /**
     * What is left of it, as it was weighed or portioned, without what was served since; null where nobody weighed it.
     */
    public function gramsLeft(): ?int
    {
        return $this->once('left', fn (): ?int => $this->from->amounts->left($this->batch));
    }

    /** Where a piece is read if nobody says: where it was read last, else at the product's first spot. */
    public function usualSpot(mixed $piece): string
    {
        if ($this->isOneMass()) {
            return Reading::PAN;
        }
        foreach ($this->read() as $place) {
            if ($place['piece'] === $piece) {
                return $place['spot'];
            }
        }

        return $this->spotsOfProduct()[0] ?? Product::SPOT;
    }

    /**
     * A spot of the product, or one the batch was read at: a word that is none is not taken for one, unless it is added
     * on purpose.
     *
     * @throws EntryProblem if there is no such spot, or a word of it is like the label of a thermometer
     */
    public function spot(mixed $spot, bool $isNew = false): string
    {
        $ofProduct = $this->spotsOfProduct();
        $known = array_values(
            array_unique([
                ...$ofProduct === [] ? [Product::SPOT] : $ofProduct,
                ...array_column($this->read(), 'spot'),
                ...$this->isOneMass() ? [Reading::PAN] : [],
            ]),
        );
        $given = \is_string($spot) ? $spot : '';
        if (\in_array($given, $known, true)) {
            return $given;
        }
        if (preg_match('/(?:^|\s)(\pL{1,3}-?\d+)(?:\s|$)/u', $given, $label) === 1) {
            throw EntryProblem::unknownThermometer(
                $label[1],
                NearestWords::of($label[1], $this->from->thermometers->labels($this->batch->site)),
            );
        }
        if ($isNew && preg_match('/^\pL[\pL\pN \'-]{0,39}$/u', $given) === 1) {
            return $given;
        }
        $slips = NearestWords::slips($given, $this->from->words->verbs());
        throw EntryProblem::unknownSpot(
            $given,
            $known,
            \array_slice([...$slips, ...NearestWords::of($given, $known)], 0, 3),
        );
    }

    /**
     * The one somebody read the batch with last.
     *
     * @throws EntryProblem if only a sensor read it so far, and the kitchen has thermometers to choose from
     */
    public function handThermometer(): ?string
    {
        $last = $this->once('thermometer', fn (): ?string => $this->from->lastReadings->thermometer($this->batch));
        if ($last === null && $this->once('probed', fn (): bool => $this->from->lastReadings->isProbed($this->batch))) {
            $labels = $this->from->thermometers->handLabels($this->batch->site);
            if ($labels !== []) {
                throw EntryProblem::whichThermometer($labels);
            }
        }

        return $last;
    }

    /**
     * The one an entry names; what a sensor wrote down names its own, which may be retired by now.
     *
     * @throws EntryProblem if the site has no such thermometer in use
     */
    public function thermometer(Draft $draft, Reading $reading): ?string
    {
        $labels = $this->once('labels', fn (): array => $this->from->thermometers->labels($this->batch->site));
        if ($draft->by !== null || $reading->logger || \in_array($reading->thermometer, $labels, true)) {
            return $reading->thermometer;
        }
        $given = $reading->thermometer ?? '';
        throw EntryProblem::unknownThermometer($given, NearestWords::of($given, $labels));
    }

    /** @throws EntryProblem if the site has no such pit */
    public function pit(string $name): Pit
    {
        $pit = $this->once('pit '.$name, fn (): ?Pit => $this->from->pits->named($this->batch->site, $name));

        return $pit
            ?? throw EntryProblem::unknownPit(
                $name,
                NearestWords::of(
                    $name,
                    array_map(static fn (Pit $one): string => $one->name, $this->from->pits->of($this->batch->site)),
                ),
            );
    }

    /** The pit it was in at a moment. */
    public function pitAt(Instant $at): ?string
    {
        return $this->once('stay '.$at->epoch, fn (): ?string => $this->from->stays->pitAt($this->batch, $at));
    }

    public function logOf(Pit $pit): PitLog
    {
        return $this->once('log '.$pit->name, fn (): PitLog => $this->from->pitHistory->log($pit));
    }

    /** @throws EntryProblem if the site has no such recipe */
    public function recipe(string $name): Recipe
    {
        $recipe = $this->once(
            'recipe '.$name,
            fn (): ?Recipe => $this->from->recipes->named($this->batch->site, $name),
        );

        return $recipe
            ?? throw EntryProblem::unknownRecipe(
                $name,
                NearestWords::slips(
                    $name,
                    array_map(
                        static fn (Recipe $one): string => $one->name,
                        $this->from->recipes->of($this->batch->site),
                    ),
                ),
            );
    }

    public function unit(string $name): ?HoldUnit
    {
        return $this->once('unit '.$name, fn (): ?HoldUnit => $this->from->units->named($this->batch->site, $name));
    }

    /** @return non-empty-list<int> */
    private function held(): array
    {
        return $this->once('held', fn (): array => $this->from->held->numbers($this->batch));
    }

    private function isOneMass(): bool
    {
        return $this->once('mass', fn (): bool => $this->from->lastReadings->isOneMass($this->batch));
    }

    /** @return list<string> */
    private function spotsOfProduct(): array
    {
        return $this->once('spots', function (): array {
            $product = $this->from->products->named($this->batch->site, $this->batch->productName);

            return array_column($product->spots ?? [], 'name');
        });
    }

    /** @return list<array{piece: int, spot: string}> */
    private function read(): array
    {
        return $this->once('read', fn (): array => $this->from->lastReadings->places($this->batch));
    }

    /**
     * @template T
     *
     * @param \Closure(): T $ask
     *
     * @return T
     */
    private function once(string $question, \Closure $ask): mixed
    {
        if (!\array_key_exists($question, $this->answers)) {
            $this->answers[$question] = $ask();
        }

        /** @var T */
        return $this->answers[$question];
    }
}
