<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Doctrine\Persistence\ManagerRegistry;
use Psr\Log\LoggerInterface;
use Verjuicer\App\Ledger\Chain\ClockProblem;
use Verjuicer\App\Platform\Problem\Outage;
use Verjuicer\App\Site\Access\AccessToken;
use Verjuicer\Core\Json\DocumentProblem;

/**
 * What sensors send, over HTTP and MQTT alike: read, recorded, or set aside. One that fails twice goes to the dead
 * letters, so that no message comes again for ever and none holds up another.
 */
final readonly class SensorMessages
{
    private const FAILED = 'could not be recorded, twice; it is kept under Kitchen, Sensors: do not send it again';

    public function __construct(
        private ReadingIngest $takenIn,
        private DeadLetters $deadLetters,
        private ManagerRegistry $managers,
        private LoggerInterface $logger,
    ) {
    }

    /**
     * @param string $cameBy 'http' or 'mqtt'
     *
     * @return ReadingResults|non-empty-list<DocumentProblem> what became of each reading; or why nothing of it is taken
     *
     * @throws \Throwable if the database is away, or the clock cannot be right: it may be sent again later
     */
    public function take(AccessToken $token, string $payload, string $cameBy): ReadingResults|array
    {
        $posted = PostedReadings::read($payload);
        if ($posted->problems !== []) {
            return $posted->problems;
        }
        try {
            try {
                return $this->takenIn->take($token, $posted);
            } catch (\Throwable $problem) {
                if (self::mayPass($problem)) {
                    throw $problem;
                }
                $this->managers->resetManager();

                return $this->takenIn->take($token, $posted);
            }
        } catch (\Throwable $problem) {
            if (self::mayPass($problem)) {
                throw $problem;
            }
            $this->managers->resetManager();
            $this->logger->critical('A message of the sensor {sensor} could not be recorded.', [
                'sensor' => $token->name,
                'exception' => $problem,
            ]);
            $this->deadLetters->keep($token, $payload, $cameBy, $problem);

            return [new DocumentProblem('', self::FAILED)];
        }
    }

    private static function mayPass(\Throwable $problem): bool
    {
        return Outage::isOne($problem) || $problem instanceof ClockProblem;
    }
}
