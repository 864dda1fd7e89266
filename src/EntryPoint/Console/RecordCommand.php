<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Console;

use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Json\DocumentProblem;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\MalformedInstant;
use Verjuicer\Core\Record\InvalidRecord;
use Verjuicer\Core\Record\Reader;
use Verjuicer\Core\Ruleset\RuleSet;
use Verjuicer\Core\Ruleset\RuleSetLibrary;
use Verjuicer\Core\Ruleset\RuleSetProblem;

/**
 * Answers a question about a record, or about one per line: read from a file, assessed like the pages do, answered as
 * JSON. Exit 0 for any answer, 2 for an invalid record or option.
 */
abstract class RecordCommand extends Command
{
    private const JSON = \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES;

    public function __construct(
        private readonly Reader $reader,
        private readonly RuleSetLibrary $ruleSets,
        private readonly Assessor $assessor,
        private readonly ClockInterface $clock,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('file', InputArgument::REQUIRED, 'The record, or - for standard input')
            ->addOption(
                'as-of',
                null,
                InputOption::VALUE_REQUIRED,
                'The moment to judge at (RFC 3339); else the record\'s own, else the end of an ended batch, else now',
            )
            ->addOption(
                'rules',
                null,
                InputOption::VALUE_REQUIRED,
                'The rule set to judge by, in place of the record\'s',
            )
            ->addOption(
                'ndjson',
                null,
                InputOption::VALUE_NONE,
                'One record a line in, one answer a line out, in the same order',
            );
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        try {
            $asOf = $this->option($input, 'as-of');
            $asOf = $asOf === null ? null : Instant::parse($asOf);
            $rules = $this->option($input, 'rules');
            $rules = $rules === null ? null : $this->ruleSets->get($rules);
        } catch (MalformedInstant|RuleSetProblem $problem) {
            return $this->refuse($output, new DocumentProblem('', $problem->getMessage()));
        }
        $file = $input->getArgument('file');
        \assert(\is_string($file));
        $handle = $file === '-' ? \STDIN : (is_file($file) && is_readable($file) ? fopen($file, 'r') : false);
        if ($handle === false) {
            return $this->refuse(
                $output,
                new DocumentProblem(
                    '',
                    \sprintf(
                        'The file "%s" cannot be read: give the path of a record, or - for standard input.',
                        $file,
                    ),
                ),
            );
        }
        // Records are trees: there are no cycles to look for, and looking would cost more than judging.
        gc_disable();
        if ($input->getOption('ndjson') === true) {
            while (($line = fgets($handle)) !== false) {
                $output->writeln(
                    json_encode($this->answer($line, $asOf, $rules)[0], self::JSON),
                    OutputInterface::OUTPUT_RAW,
                );
            }

            return self::SUCCESS;
        }
        [$answer, $status] = $this->answer((string) stream_get_contents($handle), $asOf, $rules);
        $output->writeln(json_encode($answer, self::JSON | \JSON_PRETTY_PRINT), OutputInterface::OUTPUT_RAW);

        return $status;
    }

    /** @return array{array<string, mixed>, int} */
    private function answer(string $json, ?Instant $asOf, ?RuleSet $rules): array
    {
        try {
            $record = $this->reader->read($json);
        } catch (InvalidRecord $problem) {
            return [self::errors(...$problem->problems), self::INVALID];
        }
        $asOf ??= Timeline::defaultMoment($record, Instant::ofEpoch($this->clock->now()->getTimestamp()));

        return [
            $this->told($this->assessor->assess($record, $rules ?? $this->ruleSets->get($record->rules), $asOf)),
            self::SUCCESS,
        ];
    }

    /** @return array<string, mixed> */
    abstract protected function told(Assessment $assessment): array;

    protected function option(InputInterface $input, string $name): ?string
    {
        $value = $input->getOption($name);

        return \is_string($value) ? $value : null;
    }

    private function refuse(OutputInterface $output, DocumentProblem $problem): int
    {
        $output->writeln(
            json_encode(self::errors($problem), self::JSON | \JSON_PRETTY_PRINT),
            OutputInterface::OUTPUT_RAW,
        );

        return self::INVALID;
    }

    /** @return array<string, mixed> */
    private static function errors(DocumentProblem ...$problems): array
    {
        return [
            'errors' => array_map(
                static fn (DocumentProblem $problem): array => [
                    'pointer' => $problem->pointer,
                    'message' => $problem->message,
                ],
                array_values($problems),
            ),
        ];
    }
}
