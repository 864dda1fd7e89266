<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Console;

use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Verjuicer\App\Platform\Wording\AssessmentJson;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Record\Reader;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

#[AsCommand('verjuicer:assess', 'Assess a record (verjuicer-record/1) and print what it shows as JSON')]
final class AssessCommand extends RecordCommand
{
    public function __construct(
        Reader $reader,
        RuleSetLibrary $ruleSets,
        Assessor $assessor,
        ClockInterface $clock,
        private readonly AssessmentJson $json,
    ) {
        parent::__construct($reader, $ruleSets, $assessor, $clock);
    }

    protected function told(Assessment $assessment): array
    {
        return $this->json->of($assessment);
    }
}
