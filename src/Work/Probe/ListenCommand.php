<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Probe;

use Psr\Log\LoggerInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Verjuicer\App\Platform\Mqtt\Broker;
use Verjuicer\App\Platform\Mqtt\MqttLost;
use Verjuicer\App\Platform\Mqtt\MqttMessage;
use Verjuicer\App\Projection\Projections;
use Verjuicer\App\Site\Access\AccessTokens;

/**
 * Takes in what sensors publish over MQTT: topic "verjuicer/1/readings/SECRET", payload as POST /api/v1/readings takes
 * it. A message is acknowledged when it is kept; one that could not be comes again, and is kept once.
 */
#[AsCommand('verjuicer:listen', 'Take in what sensors publish over MQTT, until it is stopped')]
final class ListenCommand extends Command
{
    public const TOPIC = 'verjuicer/1/readings/';
    private const AT_A_TIME = 5;

    public function __construct(
        private readonly TakenIn $takenIn,
        private readonly Projections $projections,
        private readonly AccessTokens $tokens,
        private readonly LoggerInterface $logger,
        private readonly Broker $broker,
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
        try {
            $broker = $this->broker->connect('verjuicer-'.substr(hash('sha256', __DIR__), 0, 12));
            $broker->subscribe(self::TOPIC.'+');
            while (time() < $until) {
                $broker->listen(min(self::AT_A_TIME, $until - time()), $this->take(...));
            }
        } catch (MqttLost $lost) {
            $output->writeln('The broker: '.$lost->getMessage());

            return self::FAILURE;
        }

        return self::SUCCESS;
    }

    /** What nobody may send, and what cannot be read, is let go of: it would come again for ever. */
    private function take(MqttMessage $message): void
    {
        $token = $this->tokens->ofSecret(substr($message->topic, \strlen(self::TOPIC)));
        if ($token?->sensorId === null) {
            $this->logger->warning('A message over MQTT by nobody known was let go of.');

            return;
        }
        $posted = Posted::read($message->payload);
        if ($posted->problems !== []) {
            $this->logger->warning('A message over MQTT by {sensor} cannot be read: {problem}.', [
                'sensor' => $token->name,
                'problem' => $posted->problems[0]->pointer.' '.$posted->problems[0]->message,
            ]);

            return;
        }
        foreach ($this->takenIn->take($token, $posted)->readings as $answer) {
            if ($answer->outcome === 'refused') {
                $this->logger->warning('A reading over MQTT by {sensor} was refused: {problem}.', [
                    'sensor' => $token->name,
                    'problem' => $answer->pointer.' '.$answer->message,
                ]);
            }
        }
        $this->projections->makeUp();
    }
}
