<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Verjuicer\App\Catalogue\Sensor\Sensor;
use Verjuicer\App\Catalogue\Sensor\SensorChannel;
use Verjuicer\App\Catalogue\Sensor\Sensors;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Series\Assignment;
use Verjuicer\App\Ledger\Series\Assignments;
use Verjuicer\App\Ledger\Series\ChannelTarget;
use Verjuicer\App\Ledger\Series\SensorFaults;
use Verjuicer\App\Platform\Machine\BackgroundProcesses;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Series\ChannelWatch;
use Verjuicer\Core\Series\SensorFault;
use Verjuicer\Core\Series\SensorFaultKind;

/** What is wrong with the sensors of a site at this moment: of those that are somewhere. */
final readonly class SensorTroubles
{
    public function __construct(
        private Sensors $sensors,
        private Assignments $assignments,
        private SensorFaults $faults,
        private BackgroundProcesses $processes,
        private Now $now,
    ) {
    }

    /** @return list<SensorTrouble> a sensor that says nothing at all once, wherever its channels are */
    public function of(Site $site): array
    {
        $found = [];
        foreach ($this->each($site) as $one) {
            $key = $one->kind === SensorFaultKind::Silent ? $one->sensorId : \count($found).' '.$one->label;
            $found[$key] = isset($found[$key]) ? $found[$key]->with($one) : $one;
        }

        return array_values($found);
    }

    /** @return list<SensorTrouble> */
    private function each(Site $site): array
    {
        if (!$this->sensors->isAnyOf($site)) {
            return [];
        }
        $current = $this->assignments->current($site);
        $open = $this->faults->open($site);
        $up = $this->processes->upFor(BackgroundProcesses::WATCH);
        $found = [];
        foreach ($this->sensors->of($site) as $sensor) {
            $isSomewhere = false;
            foreach ($sensor->channels as $channel) {
                $assignment = $current[$channel->id] ?? null;
                if ($assignment !== null && $assignment->target !== ChannelTarget::None && !$assignment->isOver) {
                    $isSomewhere = true;
                    $its = $this->ofChannel($channel, $assignment, $open[$channel->id] ?? [], $up);
                    array_push($found, ...$its);
                }
            }
            // One that is not listened to any more is missed where it still stands.
            array_push($found, ...$isSomewhere && $sensor->revokedAt === null ? self::ofSensor($sensor) : []);
        }

        return $found;
    }

    /** @return list<SensorTrouble> with what is in one batch */
    public function ofBatch(Batch $batch): array
    {
        $id = $batch->id->toRfc4122();

        return array_values(
            array_filter($this->each($batch->site), static fn (SensorTrouble $one): bool => $one->batchId === $id),
        );
    }

    /**
     * @param list<SensorFault> $open
     * @param int|null $up seconds for which the application has run without a pause, where that is known
     *
     * @return list<SensorTrouble>
     */
    private function ofChannel(SensorChannel $channel, Assignment $assignment, array $open, ?int $up): array
    {
        $now = $this->now->instant();
        $kinds = array_map(static fn (SensorFault $one): array => [$one->kind, Instant::ofEpoch($one->from)], $open);
        $last = $channel->lastAt ?? $assignment->at;
        // While the application itself was away nothing could come: that is not the sensor's silence.
        $heardSince = $up === null ? 0 : $now->epoch - $up;
        if ($now->epoch - max($last->epoch, $heardSince) > ChannelWatch::SILENT) {
            // Nothing else is known of it by now.
            $kinds = [[SensorFaultKind::Silent, $last]];
        }

        return array_map(
            static fn (array $one): SensorTrouble => new SensorTrouble(
                $channel->sensorId,
                $channel->label,
                $one[0],
                $one[1],
                $assignment->batchId,
                $assignment->tag,
                $assignment->place,
            ),
            $kinds,
        );
    }

    /** @return list<SensorTrouble> */
    private static function ofSensor(Sensor $sensor): array
    {
        $found = [];
        if ($sensor->hasWrongClock()) {
            $skew = $sensor->skewSeconds ?? 0;
            $found[] = new SensorTrouble(
                $sensor->id,
                $sensor->name,
                SensorFaultKind::WrongClock,
                null,
                null,
                null,
                null,
                Span::ofSeconds(abs($skew)),
                $skew < 0,
            );
        }
        if ($sensor->isBatteryLow()) {
            $found[] = new SensorTrouble(
                $sensor->id,
                $sensor->name,
                SensorFaultKind::BatteryLow,
                null,
                null,
                null,
                null,
            );
        }

        return $found;
    }
}
