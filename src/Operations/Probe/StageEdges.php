<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Log\SharedEvents;
use Verjuicer\App\Ledger\Series\Assignment;
use Verjuicer\App\Ledger\Series\RawSeries;
use Verjuicer\App\Ledger\Series\SensorFaults;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Series\Sample;
use Verjuicer\Core\Series\SensorFault;
use Verjuicer\Core\Series\Thinning;

/**
 * Where stages of a batch begin its record is cut: the samples on both sides are in it, also where somebody says only
 * later when that was.
 */
final readonly class StageEdges
{
    /** Seconds in which a sample beside another is looked for; further away it is in the record anyhow. */
    private const NEAR = 2 * Thinning::EVERY;

    public function __construct(
        private Connection $connection,
        private Batches $batches,
        private RawSeries $raw,
        private SensorFaults $faults,
    ) {
    }

    /**
     * @param array<mixed> $seen those that were looked at
     *
     * @return list<int> the moments, in seconds since 1970, at which stages of its batch begin since it was placed
     */
    public function since(Assignment $assignment, array $seen): array
    {
        $shared = SharedEvents::of($this->batches->get($assignment->batchId ?? ''));
        /** @var list<int> $all */
        $all = $this->connection->fetchFirstColumn(
            <<<SQL
            SELECT DISTINCT extract(epoch FROM e.at)::bigint AS at FROM event e
            WHERE ($shared->condition) AND e.type IN (:stages) AND e.at >= :since
            SQL,
            $shared->parameters + ['stages' => EventKinds::stages(), 'since' => $assignment->at->rfc3339()],
            ['stages' => ArrayParameterType::STRING],
        );

        return array_values(array_filter($all, static fn (int $at): bool => !\in_array($at, $seen, true)));
    }

    /**
     * What is no food is beside no stage: a probe that is pulled where one begins reads air, and what it read before it
     * was placed is of something else.
     *
     * @param array<int, Sample> $kept those beside the moment are added, by sequence
     */
    public function around(Site $site, Assignment $assignment, int $at, array &$kept): void
    {
        $near = $this->raw->between(
            $site->id->toRfc4122(),
            $assignment->channelId,
            max($assignment->at->epoch, $at - self::NEAR),
            $at + self::NEAR,
        );
        $faults = $this->faults->noFood($assignment->channelId);
        $read = array_filter(
            iterator_to_array($near, false),
            static fn (Sample $one): bool => $one->temp !== null && self::isFood($one, $faults),
        );
        foreach (Thinning::around($at, $read) as $sample) {
            $kept[$sample->sequence] = $sample;
        }
    }

    /** @param list<SensorFault> $faults */
    private static function isFood(Sample $sample, array $faults): bool
    {
        foreach ($faults as $fault) {
            if ($sample->at >= $fault->from && ($fault->until === null || $sample->at < $fault->until)) {
                return false;
            }
        }

        return true;
    }
}
