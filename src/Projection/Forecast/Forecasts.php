<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Forecast;

use Psr\Log\LoggerInterface;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Forecast\CookOutlook;
use Verjuicer\Core\Forecast\FallOutlook;

/**
 * How a batch is likely to go on. A forecast that cannot be made is left out and reported: the verdicts are there all
 * the same.
 */
final readonly class Forecasts
{
    public function __construct(private Products $products, private LoggerInterface $logger)
    {
    }

    /** When it is likely to be as the kitchen likes it. */
    public function cook(Batch $batch, Assessment $assessment): ?CookOutlook
    {
        return $this->made($batch, function () use ($batch, $assessment): ?CookOutlook {
            $target = $this->products->named($batch->site, $batch->productName)?->doneness()?->from;

            return CookOutlook::of($assessment, $target);
        });
    }

    /** How it is likely to cool, whether it is meant to or not. */
    public function fall(Batch $batch, Assessment $assessment): ?FallOutlook
    {
        return $this->made($batch, static fn (): ?FallOutlook => FallOutlook::of($assessment));
    }

    /**
     * @template T of object
     *
     * @param \Closure(): (T|null) $forecast
     *
     * @return T|null
     */
    private function made(Batch $batch, \Closure $forecast): ?object
    {
        try {
            return $forecast();
        } catch (\Throwable $problem) {
            $this->logger->error('No forecast of batch {batch}.', [
                'batch' => $batch->id->toRfc4122(),
                'exception' => $problem,
            ]);

            return null;
        }
    }
}
