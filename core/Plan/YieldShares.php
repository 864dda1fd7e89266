<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\NamedCut;
use Verjuicer\Core\Measure\Temperature;

/**
 * The yield of a purchase: after trimming, then after cooking and slicing. Usual values of the trade, until the
 * kitchen's own batches give better ones.
 */
final readonly class YieldShares
{
    private const TENDER = 90.0; // °C from which on meat is cooked until it pulls: it loses most

    /**
     * @param Range $trimmed share of the purchase
     * @param Range $cooked share of the trimmed weight
     * @param int $batches of this kitchen it is from; 0 for the usual
     * @param bool $isTyped whether the kitchen says so
     */
    public function __construct(
        public Range $trimmed,
        public Range $cooked,
        public int $batches = 0,
        public bool $isTyped = false,
    ) {
    }

    /**
     * As a kitchen says it, trimmed and cooked together.
     *
     * @param int $least hundredths of the purchase, $most
     */
    public static function typed(int $least, int $most): self
    {
        return new self(new Range(1.0, 1.0), new Range($least / 100, $most / 100), isTyped: true);
    }

    public static function usual(string $name, Form $form, ?Temperature $target): self
    {
        $celsius = $target === null ? 0.0 : $target->ninetieths / 90;
        [$trimmed, $cooked] = match (true) {
            $form === Form::Side => [[1.0, 1.0], [0.92, 1.0]],
            $form === Form::Comminuted => [[1.0, 1.0], [0.8, 0.9]],
            $form === Form::CommercialReadyToEat => [[0.97, 1.0], [0.9, 0.98]],
            $form === Form::WholeBird => [[0.94, 0.99], [0.62, 0.74]],
            NamedCut::of($name)->isRibs() => [[0.86, 0.95], [0.68, 0.8]],
            $celsius >= self::TENDER - 5 => [[0.8, 0.9], [0.56, 0.68]],
            default => [[0.88, 0.96], [0.72, 0.84]],
        };

        return new self(new Range(...$trimmed), new Range(...$cooked));
    }

    /** Share of the purchase that reaches plates. */
    public function served(): Range
    {
        return $this->trimmed->times($this->cooked);
    }
}
