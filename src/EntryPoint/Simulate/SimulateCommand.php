<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Simulate;

use Random\Engine\Mt19937;
use Random\Randomizer;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Contracts\HttpClient\Exception\ExceptionInterface;
use Symfony\Contracts\HttpClient\HttpClientInterface;
use Verjuicer\App\Platform\Mqtt\Broker;

/**
 * Plays the demo kitchen: its pits, rooms and meat go on, its sensors send, its crew reads, moves, settles and begins,
 * through the same pages and the same API as people and devices use.
 */
#[AsCommand('verjuicer:simulate', 'Play the demo kitchen: pits, meat, sensors and crew, until it is stopped')]
final class SimulateCommand extends Command
{
    private const CREW = 'ike';
    private const PASSWORD = 'oak-and-patience';
    /** The sensor that publishes over MQTT; the others send over HTTP. */
    private const PUBLISHES = 'W1';
    private const OPEN_BATCHES = 9;
    /** Seconds of the kitchen between rounds of the crew. */
    private const LOOKS_EVERY = 60;

    /** @var list<SimulatedFault> */
    private array $faults = [];

    public function __construct(
        private readonly HttpClientInterface $http,
        private readonly ClockInterface $clock,
        private readonly Broker $broker,
        #[Autowire('%kernel.project_dir%/var/simulate.json')] private readonly string $secrets,
        #[Autowire(env: 'DEFAULT_URI')] private readonly string $base,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this
            ->addOption('seed', null, InputOption::VALUE_REQUIRED, 'What chance is drawn from', '1')
            ->addOption('minutes', null, InputOption::VALUE_REQUIRED, 'Minutes of the kitchen after which it ends')
            ->addOption('asleep', null, InputOption::VALUE_NONE, 'The crew sleeps: only pits, meat and sensors')
            ->addOption(
                'fault',
                null,
                InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY,
                'What goes wrong: NAME[:WHAT][@HH:MM or +MINUTES][/MINUTES]; '
                .implode(
                    ', ',
                    array_map(static fn (SimulatedFaultName $one): string => $one->value, SimulatedFaultName::cases()),
                ),
            );
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $secrets = is_file($this->secrets) ? json_decode((string) file_get_contents($this->secrets), true) : null;
        if (!\is_array($secrets) || !\is_string($secrets['reads'] ?? null)) {
            $output->writeln('There is no demo here to play: load it with verjuicer:demo.');

            return self::FAILURE;
        }
        $now = $this->clock->now()->getTimestamp();
        foreach ((array) $input->getOption('fault') as $said) {
            $fault = \is_string($said) ? SimulatedFault::read($said, $now, new \DateTimeZone('America/Denver')) : null;
            if ($fault === null) {
                $output->writeln('Write a fault as NAME[:WHAT][@HH:MM or +MINUTES][/MINUTES].');

                return self::INVALID;
            }
            $this->faults[] = $fault;
        }
        $seed = $input->getOption('seed');
        $random = new Randomizer(new Mt19937(is_numeric($seed) ? (int) $seed : 1));
        $site = new SiteClient($this->http, rtrim($this->base, '/'));
        $world = new World($site, $secrets['reads']);
        $crew = new Crew($site, $secrets['reads'], $random);
        $devices = [];
        foreach ($secrets as $name => $secret) {
            if ($name !== 'reads' && \is_string($secret)) {
                // It counts on from where one that was played before stopped.
                $devices[$name] = new SimulatedDevice(
                    $site,
                    $secret,
                    $now,
                    $name === self::PUBLISHES ? $this->broker : null,
                );
            }
        }
        $sensors = new SimulatedSensors($world, $devices, $this->faults, $random, $this->clock);
        $site->beforeEachRequest($sensors->catchUp(...));
        $minutes = $input->getOption('minutes');
        $until = is_numeric($minutes) ? $now + 60 * (int) $minutes : \PHP_INT_MAX;

        return $this->play($world, $crew, $sensors, $random, $until, $input->getOption('asleep') === true, $output);
    }

    private function play(
        World $world,
        Crew $crew,
        SimulatedSensors $sensors,
        Randomizer $random,
        int $until,
        bool $isAsleep,
        OutputInterface $output,
    ): int {
        $looked = 0;
        $isIn = false;
        while (($now = $this->clock->now()->getTimestamp()) < $until) {
            try {
                if (!$isIn) {
                    $crew->logIn(self::CREW, self::PASSWORD);
                    $isIn = true;
                }
                if ($now - $looked >= self::LOOKS_EVERY) {
                    $looked = $now;
                    $world->look($now);
                    $crew->moveProbe($world);
                    $looks = !$isAsleep && !SimulatedFault::isAnyOn(
                        $this->faults,
                        SimulatedFaultName::ForgottenCheck,
                        $now,
                    );
                    $crew->goRound($world, $now, $looks);
                    if (!$isAsleep && \count($world->meats) < self::OPEN_BATCHES && $random->getInt(0, 4) === 0) {
                        $crew->begin();
                    }
                }
                $sensors->catchUp();
            } catch (ExceptionInterface|\InvalidArgumentException $problem) {
                // The server is away, or answered with a problem: a kitchen goes on.
                $output->writeln($problem->getMessage(), OutputInterface::VERBOSITY_VERBOSE);
                $isIn = false;
            }
            $this->clock->sleep(SimulatedSensors::EVERY);
        }

        return self::SUCCESS;
    }
}
