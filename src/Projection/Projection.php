<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection;

use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\Core\Assess\Assessment;

/** A read table made from assessments, so that readers never judge a record again. It can be dropped and rebuilt. */
#[AutoconfigureTag]
interface Projection
{
    /** Its name and row version, "lane 3": rows of other versions are rebuilt. */
    public function shape(): string;

    /** Replaces its rows of one batch. Within a short transaction. */
    public function write(Batch $batch, Assessment $assessment): void;
}
