<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Doctrine\DBAL\Connection;
use Psr\Log\LoggerInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Filesystem\Exception\IOException;
use Verjuicer\App\Ledger\Chain\ClockProblem;
use Verjuicer\App\Platform\Machine\BackgroundProcesses;
use Verjuicer\App\Platform\Mqtt\Broker;
use Verjuicer\App\Platform\Mqtt\MqttConnection;
use Verjuicer\App\Platform\Mqtt\MqttLost;
use Verjuicer\App\Platform\Mqtt\MqttMessage;
use Verjuicer\App\Platform\Problem\Outage;
use Verjuicer\App\Projection\Projections;
use Verjuicer\App\Site\Access\AccessToken;
use Verjuicer\App\Site\Access\AccessTokens;
use Verjuicer\Core\Json\DocumentProblem;

/**
 * Records what sensors publish over MQTT, as `SignedMessage`. A message is acknowledged to the broker once it is in the
 * database; what became of it is published under ANSWERS.
 */
#[AsCommand('verjuicer:listen', 'Take in what sensors publish over MQTT, until it is stopped')]
final class ListenCommand extends Command
{
    /** Where sensors of early versions publish, under their secret: whoever hears it can send in their place. */
    private const WITH_SECRET = 'verjuicer/1/readings/';
    /** Answers are published under this and the name the sensor logs in by. */
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
        private readonly BrokerLogins $logins,
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
        try {
            // First: a broker without a list of logins does not start.
            $this->writeLogins();
            $broker = $this->broker->connect('verjuicer-'.substr(hash('sha256', __DIR__), 0, 12));
            $broker->subscribe(SignedMessage::TOPIC.'+');
            $broker->subscribe(self::WITH_SECRET.'+');
            while (time() < $until) {
                $this->processes->beat(BackgroundProcesses::LISTENER);
                $this->writeLogins();
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

    /** Sensors that already have a login are heard even if the list cannot be written. */
    private function writeLogins(): void
    {
        try {
            $this->logins->write();
        } catch (IOException $problem) {
            $this->logger->error('The logins of sensors cannot be written for the broker.', ['exception' => $problem]);
        }
    }

    /** What nobody may send, and what cannot be read, is let go of: it would come again for ever. */
    private function take(MqttConnection $broker, MqttMessage $message): void
    {
        [$token, $body] = $this->sender($message);
        if ($token?->sensorId === null) {
            $this->logger->warning('A message over MQTT by nobody known was let go of.');

            return;
        }
        $answers = $this->messages->take($token, $body, 'mqtt');
        $isTaken = !\is_array($answers) && !$answers->isAllRefused();
        if (!$isTaken) {
            $this->logger->warning('A message over MQTT by {sensor} was refused.', ['sensor' => $token->name]);
        }
        // The broker's acknowledgement says only that the broker has it: this says what became of it.
        $broker->tell(self::ANSWERS.$token->keyId, json_encode(
            \is_array($answers)
                ? ['errors' => array_map(
                    static fn (DocumentProblem $one): array => ['pointer' => $one->pointer, 'message' => $one->message],
                    $answers,
                )]
                : $answers->toArray(),
            \JSON_THROW_ON_ERROR,
        ));
        if ($isTaken) {
            $this->projections->makeUp();
        }
    }

    /** @return array{AccessToken|null, string} whose message it is, and its body */
    private function sender(MqttMessage $message): array
    {
        if (str_starts_with($message->topic, self::WITH_SECRET)) {
            $token = $this->tokens->ofSecret(substr($message->topic, \strlen(self::WITH_SECRET)));
            if ($token !== null) {
                $this->logger->warning('Sensor {sensor} publishes under its secret: sign its messages instead.', [
                    'sensor' => $token->name,
                ]);
            }

            return [$token, $message->payload];
        }
        $signed = SignedMessage::read($message->topic, $message->payload);

        return $signed === null
            ? [null, '']
            : [$this->tokens->ofSigned($signed->keyId, $signed->body, $signed->mac), $signed->body];
    }
}
