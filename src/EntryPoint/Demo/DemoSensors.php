<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Demo;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Catalogue\Sensor\Sensors;
use Verjuicer\App\Ledger\Series\Assignments;
use Verjuicer\App\Ledger\Series\ChannelTarget;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Access\AccessTokens;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;

/** The sensors of the demo: a logger with three probes, and one for the air of the walk-in. */
final readonly class DemoSensors
{
    /** Channels by name. */
    public const ALL = ['L1' => 3, 'W1' => 1];

    private const BY = 'MR';

    public function __construct(
        private Sensors $sensors,
        private Assignments $assignments,
        private AccessTokens $tokens,
        private Pits $pits,
        private EntityManagerInterface $entities,
        private Now $now,
    ) {
    }

    /** @return array<string, string> the secrets they send by, by name, and under "reads" one that reads */
    public function load(Site $loaded): array
    {
        $by = $this->by($loaded);
        $secrets = [];
        foreach (self::ALL as $name => $channels) {
            [, $secrets[$name]] = $this->sensors->register($name, $channels, '', $by);
        }

        return $secrets + ['reads' => $this->tokens->make('bin/simulate', $by)];
    }

    /** Two of them are in pits, and one in the air of the walk-in. */
    public function place(Site $loaded): void
    {
        $by = $this->by($loaded);
        foreach ($this->sensors->of($by->site) as $sensor) {
            foreach ($sensor->channels as $channel) {
                $pit = match ($channel->label) {
                    'L1-2' => $this->pits->named($by->site, 'Drum'),
                    'L1-3' => $this->pits->named($by->site, 'Offset'),
                    default => null,
                };
                if ($pit !== null || $sensor->name === 'W1') {
                    $this->assignments->put(
                        Uuid::v7(),
                        $channel->id,
                        $by,
                        $this->now->instant(),
                        $pit === null ? ChannelTarget::Place : ChannelTarget::Pit,
                        $pit,
                        $pit === null ? 'walk-in' : null,
                    );
                }
            }
        }
    }

    private function by(Site $loaded): Account
    {
        $accounts = $this->entities->getRepository(Account::class);

        return $accounts->findOneBy(['site' => $loaded->id, 'initials' => self::BY])
            ?? throw new \LogicException('Nobody registers them.');
    }
}
