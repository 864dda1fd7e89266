<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Verjuicer\App\Catalogue\Holding\HoldUnits;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Catalogue\Recipe\Recipes;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\HeldPieces;
use Verjuicer\App\Ledger\Log\BatchAmounts;
use Verjuicer\App\Ledger\Log\LastReadings;
use Verjuicer\App\Ledger\Pit\PitHistory;
use Verjuicer\App\Ledger\Pit\PitStays;

/** Where what is known of a batch comes from. */
final readonly class EntryContextSources
{
    public function __construct(
        public Products $products,
        public Pits $pits,
        public PitHistory $pitHistory,
        public PitStays $stays,
        public Recipes $recipes,
        public HoldUnits $units,
        public LastReadings $lastReadings,
        public HeldPieces $held,
        public BatchAmounts $amounts,
        public Thermometers $thermometers,
        public LineWords $words,
    ) {
    }

    public function of(Batch $batch): EntryContext
    {
        return new EntryContext($this, $batch);
    }
}
