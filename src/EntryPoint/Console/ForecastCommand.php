<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Console;

use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Verjuicer\App\Platform\Wording\ForecastJson;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Record\Reader;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

#[AsCommand('verjuicer:forecast', 'Say when a record (verjuicer-record/1) is likely to be done, or to fall, as JSON')]
final class ForecastCommand extends RecordCommand
{
    private ?Temperature $target = null;

    public function __construct(
        Reader $reader,
        RuleSetLibrary $ruleSets,
        Assessor $assessor,
        ClockInterface $clock,
        private readonly ForecastJson $json,
    ) {
        parent::__construct($reader, $ruleSets, $assessor, $clock);
    }

    protected function configure(): void
    {
        parent::configure();
        $this->addOption(
            'target',
            null,
            InputOption::VALUE_REQUIRED,
            'What it is to be done at, 203F or 95C; else what the record says',
        );
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $given = $this->option($input, 'target');
        if ($given !== null) {
            if (preg_match('/^(\d{1,3}(?:\.\d)?)\s*°?([CF])$/iuD', $given, $part) !== 1) {
                $output->writeln('{"errors":[{"pointer":"","message":"Write the target such as 203F or 95C."}]}');

                return self::INVALID;
            }
            $this->target = strtoupper($part[2]) === 'F'
                ? Temperature::fahrenheit($part[1])
                : Temperature::celsius($part[1]);
        }

        return parent::execute($input, $output);
    }

    protected function told(Assessment $assessment): array
    {
        return $this->json->of($assessment, $this->target);
    }
}
