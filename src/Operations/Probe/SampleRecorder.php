<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Catalogue\Sensor\Sensor;
use Verjuicer\App\Catalogue\Sensor\SensorChannel;
use Verjuicer\App\Catalogue\Sensor\Sensors;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Pit\PitHistory;
use Verjuicer\App\Ledger\Series\Assignment;
use Verjuicer\App\Ledger\Series\Assignments;
use Verjuicer\App\Ledger\Series\ChannelTarget;
use Verjuicer\App\Ledger\Series\RawSeries;
use Verjuicer\App\Ledger\Series\SensorFaults;
use Verjuicer\App\Operations\Entry\Draft;
use Verjuicer\App\Operations\Entry\RecordEntry;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Settings\SiteRules;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Food\NoteStep;
use Verjuicer\Core\Food\PitSign;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Ruleset\RuleSet;
use Verjuicer\Core\Series\AirThinning;
use Verjuicer\Core\Series\ChannelWatch;
use Verjuicer\Core\Series\LimitBands;
use Verjuicer\Core\Series\Sample;
use Verjuicer\Core\Series\SensorFault;
use Verjuicer\Core\Series\SensorFaultKind;
use Verjuicer\Core\Series\SequenceGaps;
use Verjuicer\Core\Series\Thinning;

/** What of the samples of a sensor goes into records and the logs of pits, and what is wrong with them. */
final readonly class SampleRecorder
{
    public function __construct(
        private Sensors $sensors,
        private Assignments $assignments,
        private SensorFaults $faults,
        private RawSeries $raw,
        private StageEdges $edges,
        private RecordEntry $entry,
        private Batches $batches,
        private Pits $pits,
        private PitHistory $history,
        private SiteRules $rules,
        private EntityManagerInterface $entities,
    ) {
    }

    /** @param array<string, list<Sample>> $samples that are new, by channel, in the order they came */
    public function of(Site $site, Sensor $sensor, array $samples): void
    {
        $rules = $this->rules->of($site);
        $current = $this->assignments->currentOf(array_keys($samples));
        $pits = $this->pitsBeside($site, $sensor, $current, $samples);
        $drafts = [];
        foreach ($sensor->channels as $channel) {
            $ofOne = $samples[$channel->id] ?? [];
            if ($ofOne === []) {
                continue;
            }
            $assignment = $current[$channel->id] ?? null;
            $taken = $this->taken($site, $channel, $assignment, $ofOne, $rules, $pits[$channel->id] ?? null);
            if ($taken !== [] && $assignment !== null) {
                $drafts[$assignment->batchId ?? ''][$channel->id] = $taken;
            }
        }
        foreach ($drafts as $batchId => $ofBatch) {
            $this->keep($site, $batchId, $current, $ofBatch);
        }
    }

    /**
     * @param non-empty-list<Sample> $samples
     *
     * @return list<Draft> what goes into the record of the batch it is in
     */
    private function taken(
        Site $site,
        SensorChannel $channel,
        ?Assignment $assignment,
        array $samples,
        RuleSet $rules,
        ?Temperature $pit,
    ): array {
        $state = $channel->state;
        $isNew = ($state['assignment'] ?? null) !== $assignment?->id;
        $part = static fn (string $name): array => !$isNew && \is_array($state[$name] ?? null) ? $state[$name] : [];
        $watch = ChannelWatch::ofArray($part('watch'));
        $thinning = Thinning::ofArray($part('thinning'));
        $air = AirThinning::ofArray($part('air'));
        $bands = LimitBands::of($rules);
        $plausible = $rules->house()->plausible;
        $isFood = $assignment !== null && $assignment->target === ChannelTarget::Batch && !$assignment->isOver;
        $lastAt = $channel->lastAt?->epoch;
        if ($isNew && $isFood && $lastAt !== null && $lastAt >= $assignment->at->epoch) {
            $samples = $this->since($site, $assignment, $samples);
            $lastAt = $assignment->at->epoch;
        }
        $before = SequenceGaps::ofArray($state['gaps'] ?? null, $channel->lastSequence, $lastAt);
        [$gaps, $missing] = $before->see($samples);
        $drafts = $faults = $kept = $late = [];
        $place = static fn (Sample $one): array => [$one->at, $one->sequence];
        usort($samples, static fn (Sample $one, Sample $other): int => $place($one) <=> $place($other));
        foreach ($samples as $sample) {
            if ($lastAt !== null && $sample->at < $lastAt) {
                $late[] = $sample;
                continue;
            }
            $lastAt = $sample->at;
            [$watch, $more] = $watch->see($sample, $isFood, $plausible, $pit);
            $faults = [...$faults, ...$more];
            if ($assignment === null || $sample->at < $assignment->at->epoch) {
                continue;
            }
            if ($isFood && $sample->temp !== null && $watch->isFood()) {
                [$thinning, $some] = $thinning->see($sample, $bands);
                foreach ($some as $one) {
                    $kept[$one->sequence] = $one;
                }
            }
            if ($assignment->target === ChannelTarget::Pit && $sample->temp !== null && $watch->isFood()) {
                [$air, $isKept] = $air->see($sample);
                if ($isKept) {
                    $this->atPit($site, $channel, $assignment, $sample);
                }
            }
        }
        if ($late !== []) {
            $faults[] = new SensorFault(SensorFaultKind::OutOfOrder, $late[0]->at, $late[\count($late) - 1]->at + 1);
        }
        $this->faults->keep($site->id->toRfc4122(), $channel->id, ...$faults, ...$missing);
        if ($isFood) {
            $since = $assignment->at->epoch;
            $its = array_values(array_filter($late, static fn (Sample $one): bool => $one->at >= $since));
            $this->addLate($site, $assignment, $its, $rules, $kept);
            $seen = \is_array($state['edges'] ?? null) && !$isNew ? $state['edges'] : [];
            $edges = $this->edges->since($assignment, $seen);
            foreach ($edges as $edge) {
                if ($edge <= $lastAt) {
                    $this->edges->around($site, $assignment, $edge, $kept);
                    $seen[] = $edge;
                }
            }
            foreach ($kept as $sample) {
                $drafts[] = self::reading($channel, $assignment, $sample);
            }
            foreach ($faults as $fault) {
                if ($fault->kind->isNoFood()) {
                    $drafts[] = self::note($channel, $assignment, $fault);
                }
            }
            foreach ($missing as $gap) {
                if ($gap->from >= $assignment->at->epoch) {
                    $drafts[] = self::missing($channel, $assignment, $gap);
                }
            }
        }
        $last = $samples[\count($samples) - 1];
        $isNewest = !\in_array($last, $late, true);
        $this->sensors->keepState(
            $channel,
            max(array_map(static fn (Sample $one): int => $one->sequence, $samples)),
            Instant::ofEpoch($lastAt ?? $last->at),
            $isNewest ? $last->temp : $channel->lastTemp,
            [
                'assignment' => $assignment?->id,
                'watch' => $watch->toArray(),
                'thinning' => $thinning->toArray(),
                'air' => $air->toArray(),
                'edges' => $seen ?? [],
                'gaps' => $gaps->toArray(),
            ],
        );

        return $drafts;
    }

    /**
     * Where it was put is said some time after it was: what it read since is in the record, too.
     *
     * @param non-empty-list<Sample> $samples that are new
     *
     * @return non-empty-list<Sample>
     */
    private function since(Site $site, Assignment $assignment, array $samples): array
    {
        $all = [];
        $siteId = $site->id->toRfc4122();
        $last = max(array_map(static fn (Sample $one): int => $one->at, $samples));
        foreach ($this->raw->between($siteId, $assignment->channelId, $assignment->at->epoch, $last) as $sample) {
            $all[$sample->sequence] = $sample;
        }
        foreach ($samples as $sample) {
            $all[$sample->sequence] = $sample;
        }

        return array_values($all);
    }

    /**
     * What came after what is newer is looked at by itself, and is in the record with what lies beside it there.
     *
     * @param list<Sample> $late by time
     * @param array<int, Sample> $kept what goes into the record is added, by sequence
     */
    private function addLate(Site $site, Assignment $assignment, array $late, RuleSet $rules, array &$kept): void
    {
        $watch = ChannelWatch::start();
        $thinning = Thinning::start();
        $bands = LimitBands::of($rules);
        foreach ($late as $sample) {
            [$watch] = $watch->see($sample, true, $rules->house()->plausible);
            if ($sample->temp !== null && $watch->isFood()) {
                [$thinning, $some] = $thinning->see($sample, $bands);
                foreach ($some as $one) {
                    $kept[$one->sequence] = $one;
                }
            }
        }
        foreach ($thinning->rest() as $one) {
            $kept[$one->sequence] = $one;
        }
        foreach ($late === [] ? [] : [$late[0], $late[\count($late) - 1]] as $edge) {
            $this->edges->around($site, $assignment, $edge->at, $kept);
        }
    }

    /**
     * What the record does not take is kept raw, stands in no other channel's way, and is named.
     *
     * @param array<string, Assignment> $current
     * @param non-empty-array<string, list<Draft>> $drafts by channel
     */
    private function keep(Site $site, string $batchId, array $current, array $drafts): void
    {
        $assignment = $current[array_key_first($drafts)];
        try {
            $this->entry->keep(
                $this->batches->get($batchId),
                $this->whoPlaced($assignment),
                true,
                ...array_merge(...array_values($drafts)),
            );
        } catch (Problem) {
            if (\count($drafts) === 1) {
                $fault = new SensorFault(SensorFaultKind::NotRecorded, $assignment->at->epoch, null);
                $this->faults->keep($site->id->toRfc4122(), $assignment->channelId, $fault);

                return;
            }
            foreach ($drafts as $channelId => $ofOne) {
                $this->keep($site, $batchId, $current, [$channelId => $ofOne]);
            }
        }
    }

    private function whoPlaced(Assignment $assignment): Account
    {
        $by = $this->entities->find(Account::class, Uuid::fromString($assignment->accountId));
        \assert($by !== null, 'somebody said so');

        return $by;
    }

    private function atPit(Site $site, SensorChannel $channel, Assignment $assignment, Sample $sample): void
    {
        $pit = $this->pits->find($site, $assignment->pitId ?? '');
        if ($pit !== null) {
            $this->history->add(
                self::id($assignment, $sample),
                $pit,
                $this->whoPlaced($assignment),
                Instant::ofEpoch($sample->at),
                PitSign::Reading->value,
                $sample->temp,
                $channel->label,
            );
        }
    }

    private static function reading(SensorChannel $channel, Assignment $assignment, Sample $sample): Draft
    {
        \assert($sample->temp !== null, 'what is taken for food has a temperature');

        return new Draft(
            self::id($assignment, $sample),
            new Reading($sample->temp, $assignment->piece, $assignment->spot, $channel->label, logger: true),
            Instant::ofEpoch($sample->at),
            isSpotNew: true,
            by: $channel->label,
        );
    }

    /** What the record says of a time in which nothing of it was taken for food. */
    private static function note(SensorChannel $channel, Assignment $assignment, SensorFault $fault): Draft
    {
        $at = $fault->until ?? $fault->from;
        $step = $fault->until === null ? NoteStep::ProbeFault : NoteStep::ProbeFine;

        return new Draft(
            Uuid::v5(Uuid::fromString($assignment->id), "{$fault->kind->value}/{$fault->from}/{$step->value}"),
            new Note(step: $step, place: $channel->label, piece: $assignment->piece, does: $fault->kind->value),
            Instant::ofEpoch($at),
            by: $channel->label,
        );
    }

    /** The record says what it lacks: readings that the sensor numbered and that never came. */
    private static function missing(SensorChannel $channel, Assignment $assignment, SensorFault $gap): Draft
    {
        return new Draft(
            Uuid::v5(Uuid::fromString($assignment->id), "missing/{$gap->from}/{$gap->until}"),
            new Note(
                step: NoteStep::ReadingsMissing,
                place: $channel->label,
                piece: $assignment->piece,
                count: $gap->count,
            ),
            Instant::ofEpoch($gap->until ?? $gap->from),
            by: $channel->label,
        );
    }

    /** One sample can be in the records of two batches: where it was put was said late. */
    private static function id(Assignment $assignment, Sample $sample): Uuid
    {
        return Uuid::v5(Uuid::fromString($assignment->id), (string) $sample->sequence);
    }

    /**
     * @param array<string, Assignment> $current
     * @param array<string, list<Sample>> $samples
     *
     * @return array<string, Temperature> how hot the pit is by another channel of the same sensor, by channel
     */
    private function pitsBeside(Site $site, Sensor $sensor, array $current, array $samples): array
    {
        $all = $this->assignments->currentOf(
            array_map(static fn (SensorChannel $one): string => $one->id, $sensor->channels),
        );
        $pit = null;
        foreach ($sensor->channels as $channel) {
            if (($all[$channel->id]->target ?? null) === ChannelTarget::Pit) {
                $its = $samples[$channel->id] ?? [];
                $pit = $its === [] ? $channel->lastTemp : $its[\count($its) - 1]->temp;
            }
        }
        $beside = [];
        foreach ($current as $id => $assignment) {
            if ($pit !== null && $assignment->target === ChannelTarget::Batch) {
                $beside[$id] = $pit;
            }
        }

        return $beside;
    }
}
