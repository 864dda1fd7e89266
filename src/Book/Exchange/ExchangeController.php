<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Exchange;

use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpFoundation\StreamedResponse;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Platform\Csv\Csv;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Lane\BoardLanes;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\UnknownZone;
use Verjuicer\Core\Measure\Zone;

/** Data out and in, in open formats: looked at before it is taken, all of a file or nothing of it. */
final class ExchangeController extends FormController
{
    private const LONGEST = 8_000_000;

    public function __construct(
        private readonly RecordExport $export,
        private readonly RecordImport $records,
        private readonly TableImport $tables,
        private readonly LoggerImport $logger,
        private readonly BoardLanes $lanes,
        private readonly Thermometers $thermometers,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('/exchange', name: 'exchange', methods: ['GET'])]
    public function show(): Response
    {
        $today = LocalDate::ofInstant($this->now->instant(), $this->account->get()->site->zone());
        $site = $this->account->get()->site;

        return $this->view($this->blank(['from' => $today->plusDays(-6)->iso(), 'to' => $today->iso(), 'zone' => $site->timezone, 'unit' => $site->unit->value, 'time' => '1', 'temperature' => '2', 'header' => '1', 'piece' => '1', 'spot' => 'core']));
    }

    #[Route('/export/{what}', name: 'export', requirements: ['what' => 'records|readings|events'], methods: ['GET'])]
    public function export(string $what, Request $request): Response
    {
        $site = $this->account->get()->site;
        $from = LocalDate::ofIso($request->query->getString('from')) ?? throw $this->createNotFoundException();
        $to = LocalDate::ofIso($request->query->getString('to')) ?? throw $this->createNotFoundException();
        [$start, $end] = [$from->startIn($site->zone()), $to->plusDays(1)->startIn($site->zone())];
        $lines = fn (): \Generator => match ($what) {
            'records' => $this->export->ndjson($site, $start, $end),
            'readings' => $this->export->readings($site, $start, $end),
            default => $this->export->events($site, $start, $end),
        };
        $name = \sprintf('%s-%s-%s.%s', $what, $from->iso(), $to->iso(), $what === 'records' ? 'ndjson' : 'csv');

        return new StreamedResponse(static function () use ($lines): void {
            foreach ($lines() as $line) {
                echo $line;
            }
        }, headers: ['Content-Type' => $what === 'records' ? 'application/x-ndjson' : 'text/csv; charset=UTF-8; header=present', 'Content-Disposition' => HeaderUtils::makeDisposition(HeaderUtils::DISPOSITION_ATTACHMENT, $name)]);
    }

    /** Records or a logger's table: first what would happen, with the text carried along; then, asked again, done. */
    #[IsGranted('ROLE_MANAGER')]
    #[Route('/exchange', name: 'import', methods: ['POST'])]
    public function import(Request $request): Response
    {
        $input = $this->read($request, 'exchange');
        $file = $request->files->get('file');
        $text = $file instanceof UploadedFile && $file->isValid() ? $file->getContent() : $input->typed->getString('text');
        if ($text === '') {
            $input->refuse('file', 'exchange.problem.file');
        } elseif (\strlen($text) > self::LONGEST || !mb_check_encoding($text, 'UTF-8')) {
            $input->refuse('file', 'exchange.problem.text');
        }
        $isPreview = !$input->isOn('sure');
        $report = null;
        if ($input->isGood()) {
            $report = match ($input->text('what')) {
                'logger' => $this->fromLogger($input, $text, $isPreview),
                'tables' => $this->tables->import($text, $this->account->get(), $isPreview),
                default => $this->records->import($text, $this->account->get(), $isPreview),
            };
        }
        if ($report !== null && $report->isGood() && !$isPreview && $input->isGood()) {
            return $this->kept('exchange.kept', 'exchange');
        }
        $input->typed->set('text', $text);

        return $this->view($input, $report);
    }

    private function fromLogger(FormInput $input, string $text, bool $isPreview): ?ImportReport
    {
        $site = $this->account->get()->site;
        $tag = $input->whole('tag', 1, 999, true);
        $time = $input->whole('time', 1, 50, true);
        $temperature = $input->whole('temperature', 1, 50, true);
        $piece = $input->whole('piece', 1, 500, true);
        $unit = $input->choice('unit', TemperatureUnit::class, true);
        $thermometer = $input->text('thermometer');
        $batch = $tag === null ? null : $this->lanes->batchByTag($site, $tag);
        if ($tag !== null && $batch === null) {
            $input->refuse('tag', 'mix.problem.tag');
        } elseif ($batch !== null && $piece !== null && $piece > $batch->pieces) {
            $input->refuse('piece', 'form.problem.whole', ['{given}' => (string) $piece, '{least}' => '1', '{most}' => (string) $batch->pieces]);
        }
        try {
            $zone = Zone::named($input->text('zone', true));
        } catch (UnknownZone) {
            $input->refuse('zone', 'exchange.problem.zone');
            $zone = $site->zone();
        }
        if (!$input->isGood() || $batch === null || $time === null || $temperature === null || $piece === null || $unit === null) {
            return null;
        }
        $spot = $input->text('spot');

        return $this->logger->import($text, new LoggerMapping($time - 1, $temperature - 1, $input->isOn('header'), $zone, $unit, $piece, $spot === '' ? 'core' : $spot, $thermometer === '' ? null : $thermometer), $batch, $this->account->get(), $isPreview);
    }

    private function view(FormInput $input, ?ImportReport $report = null): Response
    {
        $site = $this->account->get()->site;

        return $this->page('exchange/exchange.html.twig', $input, ['site' => $site, 'report' => $report, 'thermometers' => $this->thermometers->labels($site), 'preview' => \array_slice(Csv::read($input->typed->getString('what') === 'logger' ? $input->typed->getString('text') : ''), 0, 5)]);
    }
}
