<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\Core\Assess\Assessment;

/**
 * A read table made from assessments. Whoever reads it never judges a record again; it can be thrown away and made
 * anew.
 */
#[AutoconfigureTag]
interface Projection
{
    /** Its name and the version of its rows, "lane 3": rows of another are made anew. */
    public function shape(): string;

    /** Writes what it holds of one batch, in place of what it held. Within a short transaction. */
    public function write(Batch $batch, Assessment $assessment): void;
}
