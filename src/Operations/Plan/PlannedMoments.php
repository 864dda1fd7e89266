<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Plan\DishSchedule;
use Verjuicer\Core\Plan\StepKind;

/** What was forecast of a dish when it became a real batch. */
final readonly class PlannedMoments
{
    public function __construct(
        public Instant $load,
        public Instant $earliest,
        public Instant $likely,
        public Instant $latest,
        public Instant $serve,
        /** g that were to be served. */
        public int $served,
    ) {
    }

    public static function ofSchedule(DishSchedule $one, int $served): self
    {
        $pull = $one->step(StepKind::Pull) ?? throw new \LogicException('Every dish comes off the heat.');

        return new self(
            $one->load,
            $pull->earliest ?? $pull->at,
            $pull->at,
            $pull->latest ?? $pull->at,
            $one->dish->serve,
            $served,
        );
    }

    /** @param array{load: int, earliest: int, likely: int, latest: int, serve: int, served: int} $kept */
    public static function of(array $kept): self
    {
        return new self(
            Instant::ofEpoch($kept['load']),
            Instant::ofEpoch($kept['earliest']),
            Instant::ofEpoch($kept['likely']),
            Instant::ofEpoch($kept['latest']),
            Instant::ofEpoch($kept['serve']),
            $kept['served'],
        );
    }

    /** @return array{load: int, earliest: int, likely: int, latest: int, serve: int, served: int} */
    public function toArray(): array
    {
        return [
            'load' => $this->load->epoch,
            'earliest' => $this->earliest->epoch,
            'likely' => $this->likely->epoch,
            'latest' => $this->latest->epoch,
            'serve' => $this->serve->epoch,
            'served' => $this->served,
        ];
    }
}
