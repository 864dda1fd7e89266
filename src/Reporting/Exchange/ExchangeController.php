<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpFoundation\StreamedResponse;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Platform\Csv\Csv;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Platform\Problem\RedisplaysForm;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\People\DeniedToPin;
use Verjuicer\App\Site\People\PeopleLog;
use Verjuicer\App\Site\People\RequiresRecentPassword;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\TimeZone;
use Verjuicer\Core\Measure\UnknownTimeZone;

/** Data out and in, in open formats: all of a file is looked at before anything of it is taken. */
final class ExchangeController extends FormController implements RedisplaysForm
{
    /** Bytes: the upload limit of PHP and nginx. */
    private const LONGEST = 30_000_000;
    /** Bytes of a file of which the first lines are shown. */
    private const HEAD = 20_000;
    private const LATEST = 10;
    private const PREVIEWED = 5;

    public function __construct(
        private readonly RecordExport $export,
        private readonly ProofExport $proof,
        private readonly RecordImport $records,
        private readonly TableImport $tables,
        private readonly LoggerImport $logger,
        private readonly KitchenExport $kitchen,
        private readonly KitchenImport $kitchenImport,
        private readonly Imports $imports,
        private readonly Batches $batches,
        private readonly Thermometers $thermometers,
        private readonly PeopleLog $log,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('/exchange', name: 'exchange', methods: ['GET'])]
    public function show(): Response
    {
        return $this->again($this->blank($this->filled()));
    }

    /** @return array<string, string> */
    private function filled(): array
    {
        $site = $this->account->get()->site;
        $today = LocalDate::ofInstant($this->now->instant(), $site->zone());

        return [
            'from' => $today->plusDays(-6)->iso(),
            'to' => $today->iso(),
            'zone' => $site->timezone,
            'unit' => $site->unit->value,
            'time' => '1',
            'temperature' => '2',
            'header' => '1',
            'piece' => '1',
            'spot' => Product::SPOT,
        ];
    }

    #[Route(
        '/export/{what}',
        name: 'export',
        requirements: ['what' => 'records|proof|readings|events|site'],
        methods: ['GET', 'POST'],
    )]
    #[RequiresRecentPassword]
    public function export(string $what, Request $request): Response
    {
        $site = $this->account->get()->site;
        $from = LocalDate::ofIso($request->query->getString('from')) ?? throw $this->createNotFoundException();
        $to = LocalDate::ofIso($request->query->getString('to')) ?? throw $this->createNotFoundException();
        [$start, $end] = [$from->startIn($site->zone()), $to->plusDays(1)->startIn($site->zone())];
        $lines = fn (): iterable => match ($what) {
            'site' => [$this->kitchen->json($site)],
            'records' => $this->export->ndjson($site, $start, $end),
            'proof' => $this->proof->lines($site, $start, $end),
            'readings' => $this->export->readings($site, $start, $end),
            default => $this->export->events($site, $start, $end),
        };
        $isLines = \in_array($what, ['records', 'proof'], true);
        $name = $what === 'site'
            ? \sprintf('site-%s.json', LocalDate::ofInstant($this->now->instant(), $site->zone())->iso())
            : \sprintf('%s-%s-%s.%s', $what, $from->iso(), $to->iso(), $isLines ? 'ndjson' : 'csv');

        $this->log->note($site->id->toRfc4122(), $this->account->get(), 'export', $name);

        return new StreamedResponse(
            static function () use ($lines): void {
                foreach ($lines() as $line) {
                    echo $line;
                }
            },
            headers: [
                'Content-Type' => match (true) {
                    $what === 'site' => 'application/json',
                    $isLines => 'application/x-ndjson',
                    default => 'text/csv; charset=UTF-8; header=present',
                },
                'Content-Disposition' => HeaderUtils::makeDisposition(HeaderUtils::DISPOSITION_ATTACHMENT, $name),
            ],
        );
    }

    /** Records or a logger's table: first a preview; once confirmed, the previewed file is imported. */
    #[IsGranted('ROLE_MANAGER')]
    #[DeniedToPin]
    #[Route('/exchange', name: 'import', methods: ['POST'])]
    public function import(Request $request): Response
    {
        $input = $this->read($request, 'exchange');
        $id = $input->id();
        $text = $this->text($request, $input);
        if ($text === '') {
            $input->refuse('file', 'exchange.problem.file');
        } elseif (\strlen($text) > self::LONGEST || !mb_check_encoding($text, 'UTF-8')) {
            $input->refuse('file', 'exchange.problem.text');
        }
        $what = ImportKind::tryFrom($input->text('what')) ?? ImportKind::Records;
        $mapping = $what === ImportKind::Logger ? $this->mapping($input) : null;
        if ($text !== '' && !isset($input->problems['file'])) {
            // The file need not be chosen again to fix other fields.
            $import = $this->imports->keep(
                $id,
                $this->account->get(),
                $what,
                $text,
                hash('sha256', $text),
                $mapping?->json() ?? '{}',
            );
            if ($import->isAsked) {
                return $this->kept('exchange.here', 'exchange');
            }
        }
        if (!$input->isGood() || !isset($import)) {
            return $this->again($input, null, $text);
        }
        $report = $this->looked($what, $text, $mapping);
        if (!$report->isGood() || !$input->isOn('sure')) {
            return $this->again($input, $report, $text);
        }
        $this->imports->ask($import);

        return $this->kept('exchange.kept', 'exchange');
    }

    #[IsGranted('ROLE_MANAGER')]
    #[DeniedToPin]
    #[Route('/exchange/{id}/stop', name: 'import_stop', methods: ['POST'])]
    public function stop(string $id, Request $request): Response
    {
        return $this->run($id, $request, function (Import $import): string {
            $this->imports->stop($import);

            return 'exchange.stopping';
        });
    }

    #[IsGranted('ROLE_MANAGER')]
    #[DeniedToPin]
    #[Route('/exchange/{id}/go-on', name: 'import_go_on', methods: ['POST'])]
    public function goOn(string $id, Request $request): Response
    {
        return $this->run($id, $request, function (Import $import): string {
            if ($import->mayGoOn($this->now->instant())) {
                $this->imports->ask($import);
            }

            return 'exchange.kept';
        });
    }

    /** @param \Closure(Import): string $run the import; returns its message */
    private function run(string $id, Request $request, \Closure $run): Response
    {
        $import = Uuid::isValid($id) ? $this->imports->find($id) : null;
        if ($import === null || !$import->isAsked) {
            throw $this->createNotFoundException();
        }
        if (!$this->isCsrfTokenValid('exchange', $request->request->getString('_token'))) {
            $input = $this->blank($this->filled());
            $input->refuse('form', 'entry.problem.expired');

            return $this->again($input);
        }

        return $this->kept($run($import), 'exchange');
    }

    public function showAgain(Request $request, Problem $problem): Response
    {
        $input = $this->refused($request, $problem);

        return $this->again($input, null, $this->text($request, $input));
    }

    /** The uploaded file, the text typed instead, or the previewed file. */
    private function text(Request $request, FormInput $input): string
    {
        $file = $request->files->get('file');
        $typed = $input->typed->getString('text');
        if ($file instanceof UploadedFile && $file->isValid()) {
            return $file->getContent();
        }
        $id = $input->typed->getString('id');
        $import = $typed === '' && Uuid::isValid($id) ? $this->imports->find($id) : null;

        return $import === null || $import->accountId !== $this->account->get()->id->toRfc4122()
            ? $typed
            : $this->imports->text($import);
    }

    private function looked(ImportKind $what, string $text, ?LoggerMapping $mapping): ImportReport
    {
        $by = $this->account->get();
        if ($mapping !== null) {
            return $this->logger->import($text, $mapping, $this->batches->get($mapping->batchId), $by, true);
        }

        return match ($what) {
            ImportKind::Tables => $this->tables->import($text, $by, true),
            ImportKind::Site => $this->kitchenImport->import($text, $by, true),
            default => $this->records->import($text, $by, true),
        };
    }

    private function mapping(FormInput $input): ?LoggerMapping
    {
        $site = $this->account->get()->site;
        $tag = $input->whole('tag', 1, 999, true);
        $batch = $tag === null ? null : $this->batches->tagged($site, $tag);
        if ($tag !== null && $batch === null) {
            $input->refuse('tag', 'mix.problem.tag');
        }
        $time = $input->whole('time', 1, 50, true);
        $temperature = $input->whole('temperature', 1, 50, true);
        $piece = $input->whole('piece', 1, $batch->pieces ?? 500, true);
        $unit = $input->choice('unit', TemperatureUnit::class, true);
        $thermometer = $input->text('thermometer');
        $spot = $input->text('spot');
        try {
            $zone = TimeZone::parse($input->text('zone', true));
        } catch (UnknownTimeZone) {
            $input->refuse('zone', 'exchange.problem.zone');
            $zone = $site->zone();
        }

        return $batch === null || $time === null || $temperature === null || $piece === null || $unit === null
            ? null
            : new LoggerMapping(
                $batch->id->toRfc4122(),
                $time - 1,
                $temperature - 1,
                $input->isOn('header'),
                $zone,
                $unit,
                $piece,
                $spot === '' ? Product::SPOT : $spot,
                $thermometer === '' ? null : $thermometer,
            );
    }

    /** @param string $text of the file that was looked at */
    private function again(FormInput $input, ?ImportReport $report = null, string $text = ''): Response
    {
        $site = $this->account->get()->site;
        $isLogger = $input->typed->getString('what') === ImportKind::Logger->value;
        $table = $isLogger ? Csv::read(substr($text, 0, self::HEAD)) : [];

        return $this->page('reporting/exchange/exchange.html.twig', $input, [
            'site' => $site,
            'report' => $report,
            'imports' => $this->imports->of($site, self::LATEST),
            'thermometers' => $this->thermometers->labels($site),
            'is_kept' => $text !== '' && !isset($input->problems['file']),
            'preview' => \array_slice($table, 0, self::PREVIEWED),
        ]);
    }
}
