<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Probe;

use Doctrine\DBAL\Connection;
use Psr\Log\LoggerInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Verjuicer\App\Ledger\Chain\ClockProblem;
use Verjuicer\App\Platform\Machine\BackgroundProcesses;
use Verjuicer\App\Platform\Mqtt\Broker;
use Verjuicer\App\Platform\Mqtt\MqttConnection;
use Verjuicer\App\Platform\Mqtt\MqttLost;
use Verjuicer\App\Platform\Mqtt\MqttMessage;
use Verjuicer\App\Platform\Problem\Outage;
use Verjuicer\App\Projection\Projections;
use Verjuicer\App\Site\Access\AccessTokens;
use Verjuicer\Core\Json\Problem;

/**
 * Takes in what sensors publish over MQTT: topic "verjuicer/1/readings/SECRET", payload as POST /api/v1/readings takes
 * it. A message is acknowledged when it is kept; one that could not be comes again, and is kept once.
 */
#[AsCommand('verjuicer:listen', 'Take in what sensors publish over MQTT, until it is stopped')]
final class ListenCommand extends Command
{
    public const TOPIC = 'verjuicer/1/readings/';
    /** Answers are published under this and the id of the sensor. */
    public const ANSWERS = 'verjuicer/1/answers/';
    private const AT_A_TIME = 5;
    /** Seconds until the database is tried again. */
    private const PAUSE = 2;

    public function __construct(
        private readonly SensorMessages $messages,
        private readonly Projections $projections,
        private readonly AccessTokens $tokens,
        private readonly LoggerInterface $logger,
        private readonly Broker $broker,
        private readonly BackgroundProcesses $processes,
        private readonly Connection $connection,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addOption('time-limit', null, InputOption::VALUE_REQUIRED, 'Seconds after which it ends', '3600');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $limit = $input->getOption('time-limit');
        $until = time() + (is_numeric($limit) ? (int) $limit : 0);
        $this->processes->started(BackgroundProcesses::LISTENER);
        try {
            while (time() < $until) {
                $this->listen($until);
            }
        } catch (MqttLost $lost) {
            $output->writeln('The broker: '.$lost->getMessage());

            return self::FAILURE;
        }
        $this->processes->ended(BackgroundProcesses::LISTENER);

        return self::SUCCESS;
    }

    /** Where the database is away, a message is not acknowledged: the broker has it, and sends it again. */
    private function listen(int $until): void
    {
        $broker = $this->broker->connect('verjuicer-'.substr(hash('sha256', __DIR__), 0, 12));
        $broker->subscribe(self::TOPIC.'+');
        try {
            while (time() < $until) {
                $this->processes->beat(BackgroundProcesses::LISTENER);
                $broker->listen(
                    min(self::AT_A_TIME, $until - time()),
                    fn (MqttMessage $message) => $this->take($broker, $message),
                );
            }
        } catch (\Throwable $problem) {
            if (!Outage::isOne($problem) && !$problem instanceof ClockProblem) {
                throw $problem;
            }
            $this->logger->error('Nothing can be recorded of sensors now.', ['exception' => $problem]);
            $this->connection->close();
            sleep(self::PAUSE);
        }
    }

    /** What nobody may send, and what cannot be read, is let go of: it would come again for ever. */
    private function take(MqttConnection $broker, MqttMessage $message): void
    {
        $token = $this->tokens->ofSecret(substr($message->topic, \strlen(self::TOPIC)));
        if ($token?->sensorId === null) {
            $this->logger->warning('A message over MQTT by nobody known was let go of.');

            return;
        }
        $answers = $this->messages->take($token, $message->payload, 'mqtt');
        $isTaken = !\is_array($answers) && !$answers->isAllRefused();
        if (!$isTaken) {
            $this->logger->warning('A message over MQTT by {sensor} was refused.', ['sensor' => $token->name]);
        }
        // The broker's acknowledgement says only that the broker has it: this says what became of it.
        $broker->tell(self::ANSWERS.$token->sensorId, json_encode(
            \is_array($answers)
                ? ['errors' => array_map(
                    static fn (Problem $one): array => ['pointer' => $one->pointer, 'message' => $one->message],
                    $answers,
                )]
                : $answers->toArray(),
            \JSON_THROW_ON_ERROR,
        ));
        if ($isTaken) {
            $this->projections->makeUp();
        }
    }
}
