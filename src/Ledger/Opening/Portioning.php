<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Opening;

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Batch\BatchPlan;
use Verjuicer\App\Ledger\Batch\PortionOrigin;
use Verjuicer\App\Ledger\Batch\TagInUse;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Measure\Instant;

/** Splits portions off a batch: each has a history of its own from then on, and shares the one before. */
final readonly class Portioning
{
    private const LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ';
    private const HIGHEST_DIVIDED = 99;

    public function __construct(
        private Connection $connection,
        private NewBatches $newBatches,
        private Batches $batches,
        private Products $products,
    ) {
    }

    /**
     * @param Uuid $id made by the client: the same again splits nothing more off
     * @param Uuid $division the event of the batch that says that it was divided; it is kept already
     * @param list<int>|null $pieces those that went their own way; null where it is a part of the mass
     *
     * @throws TagInUse if an open batch of the site has this tag
     */
    public function begin(
        Uuid $id,
        Account $by,
        Batch $batch,
        Uuid $division,
        int $tag,
        Instant $at,
        ?int $grams = null,
        ?string $container = null,
        ?int $depthMm = null,
        ?array $pieces = null,
    ): Batch {
        $letter = self::letter(\count($this->batches->portionsOf($batch)));
        $sharesUpTo = $this->place($division);
        \assert($sharesUpTo !== null, 'the division is kept before its portions');
        $portioned = new PortionOrigin($batch, $sharesUpTo, $letter, $grams, $container, $depthMm, $pieces);
        // The product as the site's list has it; a batch of one that was renamed since keeps its own name.
        $product =
            $this->products->named($batch->site, $batch->productName)
            ?? new Product($batch->site, $batch->productName, $batch->animal, $batch->form, $batch->integrity, null);
        $plan = new BatchPlan(
            $product,
            $tag,
            $batch->pieces,
            $batch->rawGrams,
            $batch->isStuffed,
            $batch->isWild,
            $batch->hasAdvisory,
            $portioned,
        );

        return $this->newBatches->begin($id, $by, $plan, null, $at);
    }

    /**
     * Where in the log of events an entry stands.
     *
     * @phpstan-impure
     */
    public function place(Uuid $event): ?int
    {
        $place = $this->connection->fetchOne('SELECT seq FROM event WHERE id = ?', [$event->toRfc4122()]);

        return \is_int($place) ? $place : null;
    }

    /** The event of the parent by which a portion was split off. */
    public function partingOf(Batch $portion): ?string
    {
        $id = $this->connection->fetchOne('SELECT id FROM event WHERE seq = ?', [$portion->sharesUpTo]);

        return \is_string($id) ? $id : null;
    }

    /** @return list<int> free tags for portions of a batch: 71, 72 … of tag 7 */
    public function tags(Batch $batch, int $count, int $first = 1): array
    {
        $from = $batch->tag <= self::HIGHEST_DIVIDED && $first < 10 ? 10 * $batch->tag + $first : 1;

        return $this->batches->freeTags($batch->site, $from, $count);
    }

    private static function letter(int $index): string
    {
        $count = \strlen(self::LETTERS);

        return ($index >= $count ? self::letter(intdiv($index, $count) - 1) : '').self::LETTERS[$index % $count];
    }
}
