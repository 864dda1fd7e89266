<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Event\Kinds\Freeze;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Event\Kinds\Received;
use Verjuicer\Core\Event\Kinds\Thaw;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Ruleset\ReadingContext;
use Verjuicer\Core\Ruleset\RuleSet;
use Verjuicer\Core\Ruleset\SlipReason;

/**
 * Which readings are hardly possible: off the scale of meat, in another unit, too far from the one before or from
 * another spot of the piece.
 */
final class ReadingDoubts
{
    private const LONG_AGO = 2 * 3600; // seconds

    /**
     * @var array<int, array<string, list<array{Temperature, Instant}>>> those kept and those entered with them, by
     *     piece and spot
     */
    private array $read = [];

    /** @var array<string, TemperatureUnit> */
    private array $units;

    public function __construct(
        private readonly RuleSet $rules,
        private readonly Timeline $timeline,
        TemperatureUnit $siteUnit,
        private readonly Instant $now,
    ) {
        $this->units = [$siteUnit->value => $siteUnit];
        foreach ($timeline->readings->all() as $reading) {
            $this->units[$reading->temp->unit->value] = $reading->temp->unit;
            $this->read[$reading->piece][$reading->spot][] = [$reading->temp, $reading->instant()];
        }
    }

    /**
     * @param bool $isCorrection whether it replaces an earlier entry, whose time was asked about then
     *
     * @return list<SlipReason>
     */
    public function of(Reading $reading, Instant $at, bool $isCorrection): array
    {
        $last = array_filter(
            array_map(
                static fn (array $readings): ?array => self::before($readings, $at),
                $this->read[$reading->piece] ?? [],
            ),
        );
        $sameSpot = $last[$reading->spot] ?? null;
        unset($last[$reading->spot]);
        $around = new ReadingContext(array_values($this->units), $this->isFrozen($at), $sameSpot, array_values($last));
        $this->read[$reading->piece][$reading->spot][] = [$reading->temp, $at];

        return [
            ...$this->rules->house()->plausible->doubts($reading->temp, $at, $around),
            ...$isCorrection ? [] : $this->ofTime($at),
        ];
    }

    /** @return list<SlipReason> a slip of the minutes lands in another stage, or long ago */
    private function ofTime(Instant $at): array
    {
        $open = $this->timeline->stages[\count($this->timeline->stages) - 1] ?? null;
        $isOtherStage = $open !== null && $open->from->isAfter($at);

        return [
            ...$isOtherStage ? [SlipReason::OtherStage] : [],
            ...$this->now->epoch - $at->epoch > self::LONG_AGO ? [SlipReason::LongAgo] : [],
        ];
    }

    private function isFrozen(Instant $at): bool
    {
        $isFrozen = false;
        foreach ($this->timeline->stages as $stage) {
            $detail = $stage->event->detail;
            if (!$stage->from->isAfter($at)) {
                $isFrozen = $stage->is(Freeze::class, Thaw::class) || ($detail instanceof Received && $detail->frozen);
            }
        }

        return $isFrozen;
    }

    /**
     * @param list<array{Temperature, Instant}> $readings
     *
     * @return array{Temperature, Instant}|null the latest until a moment; of one second, the one entered last
     */
    private static function before(array $readings, Instant $at): ?array
    {
        $before = null;
        foreach ($readings as $reading) {
            if (!$reading[1]->isAfter($at) && ($before === null || !$before[1]->isAfter($reading[1]))) {
                $before = $reading;
            }
        }

        return $before;
    }
}
