<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Demo;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Chain\RecordingClock;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\People\Role;
use Verjuicer\App\Site\Site\Site;

#[AsCommand(
    'verjuicer:demo',
    'Load the Quarry Lane Smokehouse, once: a made-up kitchen whose day is the day it is loaded',
)]
final class DemoCommand extends Command
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly RecordingClock $clock,
        private readonly Ledger $ledger,
        private readonly Now $now,
        private readonly StoryLoader $loader,
        private readonly DemoPlans $plans,
        private readonly DemoSensors $sensors,
        private readonly DemoDuty $duty,
        #[Autowire('%kernel.project_dir%/var/simulate.json')] private readonly string $secrets,
    ) {
        parent::__construct();
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $sites = $this->entities->getRepository(Site::class);
        $there = $sites->findOneBy(['isPractice' => true]) ?? $this->ofFirstRelease();
        if ($there !== null) {
            $this->goOn($there);
            $output->writeln('The demo is there already.');

            return self::SUCCESS;
        }
        $site = $this->loader->load(DemoKitchen::story());
        $this->plans->load($site);
        $this->duty->load($site);
        // Only bin/simulate plays them.
        $files = new Filesystem();
        $files->dumpFile($this->secrets, json_encode($this->sensors->load($site), \JSON_THROW_ON_ERROR));
        $files->chmod($this->secrets, 0o600);
        $this->sensors->place($site);
        $output->writeln('The Quarry Lane Smokehouse is loaded.');

        return self::SUCCESS;
    }

    /** The demo of the first release, which did not say yet that it is one: it has the logins of the demo. */
    private function ofFirstRelease(): ?Site
    {
        $story = DemoKitchen::story();
        $account = $this->entities
            ->createQuery('SELECT a FROM '.Account::class.' a JOIN a.person p JOIN a.site s '
                .'WHERE p.login = :login AND a.name = :name AND s.name = :site')
            ->setParameter('login', $story->people[0][0])
            ->setParameter('name', $story->people[0][1])
            ->setParameter('site', $story->site)
            ->getOneOrNullResult();
        if (!$account instanceof Account) {
            return null;
        }
        $account->site->isPractice = true;
        $this->entities->flush();

        return $account->site;
    }

    /** A demo that was off for weeks, or was played faster than time goes, goes on; it is written down why. */
    private function goOn(Site $site): void
    {
        $now = $this->now->instant();
        $last = $this->clock->last($site);
        $by = $this->entities->getRepository(Account::class)->findOneBy(['site' => $site, 'role' => Role::Manager]);
        if ($last !== null && $by !== null && $this->clock->problemOf($site) !== null) {
            $this->ledger->write(
                $site,
                fn () => $this->clock->vouch(Uuid::v7(), $by, $last, $now, 'The demo is begun again.'),
                trusts: true,
            );
        }
    }
}
