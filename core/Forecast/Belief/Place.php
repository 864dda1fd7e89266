<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Belief;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\Kinds\ColdHold;
use Verjuicer\Core\Event\Kinds\Cool;
use Verjuicer\Core\Event\Kinds\HotHold;
use Verjuicer\Core\Event\Kinds\Prep;
use Verjuicer\Core\Event\Kinds\Rest;
use Verjuicer\Core\Food\Holding;

/** The place of food off the heat: as chosen, or as its text names it exactly. */
final readonly class Place
{
    /**
     * @param Holding|null $holding null if unknown
     * @param float|null $around °C, where it was said
     * @param float|null $depth m of the layer it lies in
     */
    private function __construct(
        public ?Holding $holding,
        public ?float $around = null,
        public bool $isCovered = false,
        public ?float $depth = null,
    ) {
    }

    /** @return self|null null where the event puts it nowhere of the kind */
    public static function of(?Detail $detail): ?self
    {
        return match (true) {
            $detail instanceof HotHold => new self(
                self::named($detail->holding, $detail->place),
                $detail->set === null ? null : $detail->set->ninetieths / 90,
                $detail->covered,
            ),
            $detail instanceof ColdHold => new self(self::named($detail->holding, $detail->place) ?? Holding::WalkIn),
            $detail instanceof Cool => new self(
                self::named($detail->holding, $detail->method) ?? Holding::WalkIn,
                $detail->around === null ? null : $detail->around->ninetieths / 90,
                $detail->covered,
                $detail->depthMm === null ? null : $detail->depthMm / 1000,
            ),
            $detail instanceof Rest => new self(
                self::named($detail->holding, $detail->method) ?? Holding::Counter,
                $detail->around === null ? null : $detail->around->ninetieths / 90,
            ),
            $detail instanceof Prep => new self(Holding::Counter),
            default => null,
        };
    }

    private static function named(?Holding $chosen, ?string $words): ?Holding
    {
        return $chosen ?? ($words === null ? null : Holding::named($words));
    }
}
