<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Belief;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Evidence\Outline;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Event\Kinds\Unwrap;
use Verjuicer\Core\Event\Kinds\Wrap;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Record\RecordedProduct;
use Verjuicer\Core\Thermal\Atmosphere;

/** The beliefs of a record, one per probe location. */
final class Beliefs
{
    /** The location of a piece without readings. */
    public const MIDDLE = 'core';

    private const MOST_DRAWS = 120; // of all places together
    private const LEAST_DRAWS = 12;

    /** @var array<int, true>|null pieces that were wrapped or unwrapped by themselves */
    private ?array $wrapped = null;
    /** @var array<string, Belief|null> by track */
    private array $made = [];

    /**
     * @param list<TrackReading> $outline of all readings
     * @param array<string, true> $suspect readings that are not believed, by id
     * @param string|null $mostRead the track that says something of the others
     * @param list<PlannedSteps> $also steps to try in addition to the record's plan
     */
    private function __construct(
        private readonly Assessment $assessment,
        private readonly array $outline,
        private readonly array $suspect,
        private readonly int $draws,
        private readonly ?string $mostRead,
        private readonly array $also,
        private readonly ?LearnedParameters $learned,
    ) {
    }

    /**
     * @param int $places how many will be asked for: the more, the coarser each
     * @param list<PlannedSteps> $also steps to try in addition to the record's plan
     * @param LearnedParameters|null $learned of own cooks
     */
    public static function of(
        Assessment $assessment,
        int $places,
        array $also = [],
        ?LearnedParameters $learned = null,
    ): self {
        $suspect = array_fill_keys($assessment->suspectReadings, true);
        $outline = Outline::of($assessment->timeline);
        $counts = [];
        foreach ($outline as $reading) {
            if (!isset($suspect[$reading->id])) {
                $counts[$reading->track] = ($counts[$reading->track] ?? 0) + 1;
            }
        }
        arsort($counts);
        $most = array_key_first($counts);

        return new self(
            $assessment,
            $outline,
            $suspect,
            max(self::LEAST_DRAWS, min(Belief::DRAWS, intdiv(self::MOST_DRAWS, max(1, $places)))),
            $most === null ? null : (string) $most,
            $also,
            $learned,
        );
    }

    /**
     * @param string $track piece and spot, "1/core"; one without readings follows the prior
     *
     * @return Belief|null null where it is on no heat and has left none
     */
    public function ofTrack(string $track): ?Belief
    {
        return $this->made[$track] ??= $this->made($track);
    }

    private function made(string $track): ?Belief
    {
        $record = $this->assessment->record;
        $way = CookRoute::of($this->assessment, (int) $track, [...PlannedSteps::in($record), ...$this->also]);
        if ($way === null) {
            return null;
        }
        $from = $way->legs[0]->from;
        $points = [];
        $before = null;
        foreach ($this->outline as $reading) {
            if (isset($this->suspect[$reading->id])) {
                continue;
            }
            if ($reading->at < $from) {
                $before = $reading->level / 90;
            } elseif ($reading->track === $track) {
                $points[] = [$reading->at, $reading->level / 90];
            }
        }

        $thickness = self::thickness($record->product, (int) $track);
        $prior = Prior::of($record->product, $thickness, $record->portion?->grams);
        $prior = $this->learned === null ? $prior : $prior->learned($this->learned);
        if ($this->mostRead !== null && $this->mostRead !== $track) {
            $prior = $prior->beside($this->ofTrack($this->mostRead)->ofAllPieces ?? []);
        }

        return Belief::of(
            $way,
            $prior,
            $points,
            $before,
            Atmosphere::pascals($record->site->elevationM ?? 0),
            $this->assessment->timeline->asOf->epoch,
            $this->draws,
        );
    }

    /**
     * Before any reading: the effect of such a rest or cooling on such a piece or layer.
     *
     * @param float $celsius it begins with
     * @param float|null $around °C, if it was read
     * @param float|null $depth m of the layer, else the weight counts
     */
    public static function ahead(
        RecordedProduct $product,
        Holding $holding,
        float $celsius,
        ?float $around,
        ?float $depth,
        bool $isCovered,
        int $from,
        ?int $elevation,
    ): Belief {
        return Belief::of(
            CookRoute::ahead($holding, $around, $depth, $isCovered, $from),
            Prior::of($product, null, null),
            [[$from, $celsius]],
            null,
            Atmosphere::pascals($elevation ?? 0),
            $from,
        );
    }

    /** Facts known of one piece beyond those of all: pieces with the same facts share a belief. */
    public function known(int $piece): string
    {
        if ($this->wrapped === null) {
            $this->wrapped = [];
            foreach ($this->assessment->timeline->events as $event) {
                $detail = $event->detail;
                if (($detail instanceof Wrap || $detail instanceof Unwrap) && $detail->piece !== null) {
                    $this->wrapped[$detail->piece] = true;
                }
            }
        }

        return isset($this->wrapped[$piece])
            ? "piece $piece"
            : (string) self::thickness($this->assessment->record->product, $piece);
    }

    /** m, as `thickness_mm` of the product says: a number, or one for each piece. */
    private static function thickness(RecordedProduct $product, int $piece): ?float
    {
        $said = $product->extensions['thickness_mm'] ?? null;
        $said = \is_object($said) ? get_object_vars($said) : $said;
        if (\is_array($said)) {
            $said = array_is_list($said) ? $said[$piece - 1] ?? null : $said[$piece] ?? null;
        }

        return (\is_int($said) || \is_float($said)) && $said >= 2 && $said <= 600 ? $said / 1000 : null;
    }
}
