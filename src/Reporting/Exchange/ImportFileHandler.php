<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Site\People\Account;

/** Takes files in, each once; one that was stopped stays as far as it is. */
#[AsMessageHandler(sign: true)]
final readonly class ImportFileHandler
{
    public function __construct(
        private Imports $imports,
        private RecordImport $records,
        private TableImport $tables,
        private LoggerImport $logger,
        private KitchenImport $kitchen,
        private EntityManagerInterface $entities,
    ) {
    }

    /** @throws \Throwable after the waiting person has been notified */
    public function __invoke(ImportFile $message): void
    {
        $import = $this->imports->find($message->importId);
        $by = $import === null ? null : $this->entities->find(Account::class, Uuid::fromString($import->accountId));
        if ($import === null || $by === null || $import->finishedAt !== null) {
            return;
        }
        $this->imports->alone($import, function () use ($import, $by): void {
            try {
                $this->imports->finish($import, $this->takenIn($import, $by));
            } catch (ImportCancelled) {
                // It says so itself, and can be gone on with.
            } catch (\Throwable $problem) {
                $this->imports->fail($import, $problem->getMessage());

                throw $problem;
            }
        });
    }

    private function takenIn(Import $import, Account $by): ImportReport
    {
        $text = $this->imports->text($import);
        if ($import->what === ImportKind::Site) {
            return $this->kitchen->import($text, $by, false);
        }
        $taking = $this->imports->taking($import);
        if ($import->what === ImportKind::Records) {
            return $this->records->import($text, $by, false, $taking);
        }
        if ($import->what === ImportKind::Tables) {
            return $this->tables->import($text, $by, false, $taking);
        }
        $mapping = LoggerMapping::ofJson($import->mapping);
        $batch = $this->entities->find(Batch::class, Uuid::fromString($mapping->batchId));
        \assert($batch !== null, 'it was there when the file was looked at, and nothing is removed');
        try {
            return $this->logger->import($text, $mapping, $batch, $by, false, $taking);
        } catch (Problem $problem) {
            $report = new ImportReport();
            $report->refuse(1, $problem->getMessage());

            return $report;
        }
    }
}
