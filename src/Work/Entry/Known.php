<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Entry;

use Verjuicer\App\Catalogue\Holding\HoldUnit;
use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Recipe\Recipe;
use Verjuicer\Core\Pit\PitLog;

/** What is known of one batch and its kitchen while entries are completed: asked for when it is needed, and once however many they are. */
final class Known
{
    /** @var array<string, mixed> */
    private array $answers = [];

    public function __construct(private readonly KnownSources $from, private readonly \Verjuicer\App\Ledger\Batch\Batch $batch)
    {
    }

    /** Where a piece is read if nobody says: where it was read last, else at the product's first spot. */
    public function usualSpot(mixed $piece): string
    {
        foreach ($this->read() as $place) {
            if ($place['piece'] === $piece) {
                return $place['spot'];
            }
        }

        return $this->spotsOfProduct()[0] ?? Product::SPOT;
    }

    /**
     * A spot of the product, or one the batch was read at: a word that is none is not taken for one.
     *
     * @throws EntryProblem if there is no such spot
     */
    public function spot(mixed $spot): string
    {
        $ofProduct = $this->spotsOfProduct();
        $known = [...($ofProduct === [] ? [Product::SPOT] : $ofProduct), ...array_column($this->read(), 'spot')];
        if (\is_string($spot) && \in_array($spot, $known, true)) {
            return $spot;
        }
        $given = \is_string($spot) ? $spot : '';
        $isLabel = preg_match('/^\pL{1,3}-?\d+$/u', $given) === 1;
        throw $isLabel ? EntryProblem::unknownThermometer($given) : EntryProblem::unknownSpot($given, $known);
    }

    /** The one the batch was read with last. */
    public function thermometer(): ?string
    {
        return $this->once('thermometer', fn (): ?string => $this->from->lastReadings->thermometer($this->batch));
    }

    /** @throws EntryProblem if the site has no such pit */
    public function pit(string $name): Pit
    {
        $pit = $this->once('pit '.$name, fn (): ?Pit => $this->from->pits->named($this->batch->site, $name));

        return $pit ?? throw EntryProblem::unknownPit($name);
    }

    public function logOf(Pit $pit): PitLog
    {
        return $this->once('log '.$pit->name, fn (): PitLog => $this->from->pitHistory->log($pit));
    }

    /** @throws EntryProblem if the site has no such recipe */
    public function recipe(string $name): Recipe
    {
        $recipe = $this->once('recipe '.$name, fn (): ?Recipe => $this->from->recipes->named($this->batch->site, $name));

        return $recipe ?? throw EntryProblem::unknownRecipe($name);
    }

    public function unit(string $name): ?HoldUnit
    {
        return $this->once('unit '.$name, fn (): ?HoldUnit => $this->from->units->named($this->batch->site, $name));
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
