<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Console;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\ArrayInput;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\NullOutput;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Process\Process;
use Verjuicer\App\Platform\Machine\MachineStates;
use Verjuicer\App\Reporting\Proof\Verification;
use Verjuicer\App\Site\Site\Site;

#[AsCommand(
    'verjuicer:restore',
    'Read a backup into an empty database, and walk the chain of every site to see that nothing is missing or altered',
)]
final class RestoreCommand extends Command
{
    public function __construct(
        #[Autowire(env: 'DATABASE_URL')] private readonly string $database,
        private readonly Connection $connection,
        private readonly EntityManagerInterface $entities,
        private readonly Verification $verification,
        private readonly MachineStates $states,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('file', InputArgument::REQUIRED, 'A file that verjuicer:backup wrote');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $file = $input->getArgument('file');
        if (!\is_string($file) || !is_file($file)) {
            $output->writeln('There is no such file.');

            return self::INVALID;
        }
        if (
            $this->connection->fetchOne(
                "SELECT 1 FROM information_schema.tables WHERE table_schema = 'public' LIMIT 1",
            ) !== false
        ) {
            $output->writeln(
                'This database is not empty: restore into a new one, so that nothing in this one is lost.',
            );

            return self::INVALID;
        }
        $restore = new Process(
            [
                'pg_restore',
                '--no-owner',
                '--exit-on-error',
                '--single-transaction',
                '--dbname='.strtok($this->database, '?'),
                $file,
            ],
            timeout: null,
        );
        if ($restore->run() !== 0) {
            $output->writeln('Nothing was restored: '.trim($restore->getErrorOutput()));

            return self::FAILURE;
        }
        // One of an earlier version is brought to the shape of this one.
        $migrate = new ArrayInput(['command' => 'doctrine:migrations:migrate']);
        $migrate->setInteractive(false);
        if ($this->getApplication()?->doRun($migrate, new NullOutput()) !== self::SUCCESS) {
            $output->writeln('Restored, but it cannot be brought to the shape of this version.');

            return self::FAILURE;
        }
        foreach ($this->entities->getRepository(Site::class)->findAll() as $site) {
            $verified = $this->verification->of($site, judges: false);
            foreach ($verified->breaks as $break) {
                $output->writeln("Restored, but of $site->name: $break");
            }
            // Keys are in no backup: their folder may still be on its way.
            if (\count($verified->breaks) > ($verified->hasKey ? 0 : 1)) {
                $this->states->note('verify', false, 'after a restore a chain breaks: see verjuicer:verify');

                return self::FAILURE;
            }
            $output->writeln(\sprintf('%s: restored, %d links, all hold.', $site->name, $verified->links));
        }
        $this->states->note('verify', true, 'all links hold, after a restore');

        return self::SUCCESS;
    }
}
