<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Doctrine\DBAL\Connection;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use Verjuicer\App\Catalogue\Holding\HoldUnits;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Catalogue\Sensor\SensorChannel;
use Verjuicer\App\Catalogue\Sensor\Sensors;
use Verjuicer\App\Ledger\Pit\PitHistory;
use Verjuicer\App\Ledger\Series\Assignment;
use Verjuicer\App\Ledger\Series\Assignments;
use Verjuicer\App\Ledger\Series\ChannelTarget;
use Verjuicer\App\Ledger\Series\RawSeries;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\App\Site\Settings\SiteRules;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Food\PitSign;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Ruleset\RuleSet;
use Verjuicer\Core\Series\Sample;

/** Which pits, cold places and hot units are not as they must be, by the sensors in them. */
final readonly class EquipmentDeviations
{
    /** Seconds a place is wrong on end before it is named: a door that is opened is not. */
    private const FOR = 600;
    /** Seconds a pit falls on end, at least, away from its set point; until it is back there it is sick. */
    private const FALLING = 240;
    /** Minutes after a lid was opened in which a fall says nothing. */
    private const LID_MINUTES = 10;
    /** Ninetieths of a degree by which two readings of what stands still may differ: 2 °F. */
    private const NOISE = 100;

    public function __construct(
        private Sensors $sensors,
        private Assignments $assignments,
        private RawSeries $raw,
        private Pits $pits,
        private PitHistory $history,
        private HoldUnits $units,
        private Lanes $lanes,
        private SiteRules $rules,
        private MeasureFormatter $figures,
        private UrlGeneratorInterface $urls,
        private Connection $connection,
        private Now $now,
    ) {
    }

    /** @return list<EquipmentDeviation> */
    public function of(Site $site): array
    {
        if (!$this->sensors->isAnyOf($site)) {
            return [];
        }
        $current = $this->assignments->current($site);
        $rules = $this->rules->of($site);
        $found = [];
        foreach ($this->sensors->of($site) as $sensor) {
            foreach ($sensor->revokedAt === null ? $sensor->channels : [] as $channel) {
                $assignment = $current[$channel->id] ?? null;
                // Where it fell silent, what it said last holds: nothing shows that it is well again.
                $at = $channel->lastAt;
                if ($assignment === null || $at === null || $channel->lastTemp === null) {
                    continue;
                }
                $sick = match ($assignment->target) {
                    ChannelTarget::Pit => $this->pit($site, $channel, $assignment, $rules),
                    ChannelTarget::Place => $this->place($site, $channel, $assignment, $rules, $at),
                    default => null,
                };
                if ($sick !== null) {
                    $found[$sick->key] = $sick;
                }
            }
        }

        return array_values($found);
    }

    private function pit(
        Site $site,
        SensorChannel $channel,
        Assignment $assignment,
        RuleSet $rules,
    ): ?EquipmentDeviation {
        $pit = $this->pits->find($site, $assignment->pitId ?? '');
        if ($pit === null || $channel->lastTemp === null) {
            return null;
        }
        $history = $this->history->of($pit);
        $log = PitHistory::read($history);
        $set = $log->setAt($this->now->instant());
        if ($set === null || !$log->isLitAt($this->now->instant())) {
            return null;
        }
        $drift = $rules->house()->pitDrift;
        $since = $this->since(
            $site,
            $channel,
            static fn (Temperature $temp): bool => !$drift->covers($set, $temp) && $set->isHotterThan($temp),
        );
        if ($since === null) {
            return null;
        }
        $quiet = [];
        $asked = 0;
        foreach ($log->entries as $entry) {
            if (\in_array($entry->sign, [PitSign::Set, PitSign::Lit], true)) {
                // A fire has to come to what was just asked of it.
                $asked = max($asked, $entry->at->epoch);
            } elseif ($entry->sign === PitSign::LidOpened) {
                $quiet[] = $entry->at->epoch;
            }
        }
        $since = max($since, $asked);
        // It fell before it was too cold, too. One that stands still far below is named by its drift.
        if (!self::hasFallen($this->read($site, $channel, max($since - self::FOR, $asked)), $quiet)) {
            return null;
        }

        return new EquipmentDeviation(
            "pit:{$pit->id->toRfc4122()}:$since",
            EquipmentDeviationKind::PitOut,
            $pit->name,
            $this->figures->temperature($channel->lastTemp),
            $this->figures->temperature($set),
            $this->urls->generate('pit', ['pit' => $pit->id->toRfc4122()]),
            $this->inside($site, static fn (Lane $lane): bool => $lane->pit === $pit->name),
        );
    }

    /**
     * Whether it fell on end for as long as counts: it stood lower by then than when it was hottest, and no higher than
     * ever since. What a dead fire does afterwards is no sign that it burns again.
     *
     * @param list<Sample> $samples since it is too cold, by time
     * @param list<int> $lids when its lid was opened, in seconds since 1970
     */
    private static function hasFallen(array $samples, array $lids): bool
    {
        $hottest = null;
        $lowest = 0;
        foreach ($samples as $sample) {
            $reads = $sample->temp->ninetieths ?? 0;
            if ($hottest === null || $reads >= $hottest[0] || self::isOpen($sample->at, $lids)) {
                $hottest = [$reads, $sample->at];
                $lowest = $reads;
                continue;
            }
            $lowest = min($lowest, $reads);
            $hasFallen = $reads < $hottest[0] - self::NOISE && $reads <= $lowest + self::NOISE;
            if ($hasFallen && $sample->at - $hottest[1] >= self::FALLING) {
                return true;
            }
        }

        return false;
    }

    /** @param list<int> $lids */
    private static function isOpen(int $at, array $lids): bool
    {
        foreach ($lids as $lid) {
            if ($at >= $lid && $at < $lid + 60 * self::LID_MINUTES) {
                return true;
            }
        }

        return false;
    }

    private function place(
        Site $site,
        SensorChannel $channel,
        Assignment $assignment,
        RuleSet $rules,
        Instant $at,
    ): ?EquipmentDeviation {
        $name = $assignment->place ?? '';
        $isHot = $this->units->named($site, $name) !== null;
        $limit = ($isHot ? $rules->limits()->hot : $rules->limits()->cold)->threshold;
        $isWrong = $isHot
            ? static fn (Temperature $temp): bool => $temp->isBelow($limit)
            : static fn (Temperature $temp): bool => $temp->isAbove($limit);
        if ($channel->lastTemp === null || !$isWrong($channel->lastTemp)) {
            return null;
        }
        $since = $this->since($site, $channel, $isWrong);
        if ($since === null || $at->epoch - $since < self::FOR) {
            return null;
        }
        $places = $this->placesOf($site);

        return new EquipmentDeviation(
            "place:$name:$since",
            $isHot ? EquipmentDeviationKind::NotHot : EquipmentDeviationKind::Warm,
            $name,
            $this->figures->temperature($channel->lastTemp),
            $this->figures->threshold($limit, $site->unit),
            $this->urls->generate('sensor', ['sensor' => $channel->sensorId]),
            $this->inside($site, static fn (Lane $lane): bool => ($places[$lane->batchId] ?? $lane->place) === $name),
        );
    }

    /** @return list<Sample> with a temperature, by time */
    private function read(Site $site, SensorChannel $channel, int $from): array
    {
        $all = $this->raw->between($site->id->toRfc4122(), $channel->id, $from, $this->now->instant()->epoch);

        return array_values(
            array_filter(iterator_to_array($all, false), static fn (Sample $one): bool => $one->temp !== null),
        );
    }

    /**
     * As long as it lasts, it is the same cause.
     *
     * @param \Closure(Temperature): bool $isSo
     */
    private function since(Site $site, SensorChannel $channel, \Closure $isSo): ?int
    {
        return $this->raw->since($site->id->toRfc4122(), $channel->id, $this->now->instant()->epoch, $isSo);
    }

    /**
     * @param \Closure(Lane): bool $isIn
     *
     * @return array<string, Lane>
     */
    private function inside(Site $site, \Closure $isIn): array
    {
        $inside = [];
        foreach (array_filter($this->lanes->open($site)->lanes, $isIn) as $lane) {
            $inside[$lane->batchId] = $lane;
        }

        return $inside;
    }

    /** @return array<string, string> where the open batches are, by id */
    private function placesOf(Site $site): array
    {
        /** @var array<string, string> */
        return $this->connection->fetchAllKeyValue(
            'SELECT r.batch_id, r.place FROM batch_report r JOIN open_tag o ON o.batch_id = r.batch_id '
            .'WHERE r.site_id = ? AND r.place IS NOT NULL',
            [$site->id->toRfc4122()],
        );
    }
}
