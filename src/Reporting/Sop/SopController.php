<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Sop;

use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Process\Process;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Twig\Environment;
use Verjuicer\App\Ledger\Procedure\Procedures;
use Verjuicer\App\Ledger\Procedure\ProcedureVersion;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Reporting\Proof\AlteredFile;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\People\DeniedToPin;
use Verjuicer\App\Site\Settings\SiteRules;
use Verjuicer\App\Site\Site\WallTime;
use Verjuicer\Core\Food\ProcedureKind;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Ruleset\ProcedureRules;

/** The written procedures of a kitchen: versions, approvals, training, and the paper itself. */
#[Route('/papers')]
final class SopController extends FormController
{
    private const LONGEST = 40_000;
    private const LARGEST_SCAN = 5_000_000;
    private const SCANS = ['application/pdf', 'image/png', 'image/jpeg'];
    private const PDF_SECONDS = 60;

    public function __construct(
        private readonly Procedures $procedures,
        private readonly ProcedureLog $written,
        private readonly GuidedText $texts,
        private readonly SiteRules $rules,
        private readonly Environment $twig,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('', name: 'papers', methods: ['GET'])]
    public function list(): Response
    {
        $site = $this->account->get()->site;
        $rows = [];
        foreach (ProcedureKind::cases() as $kind) {
            $inForce = $this->procedures->inForce($site, $kind);
            $rows[] = [
                'kind' => $kind,
                'citation' => $this->rules->of($site)->get(ProcedureRules::class)->citation($kind),
                'in_force' => $inForce,
                'latest' => $this->procedures->ofKind($site, $kind)[0] ?? null,
                'trained' => $inForce === null ? 0 : \count($this->procedures->trained($inForce->id)),
            ];
        }

        return $this->render('reporting/sop/list.html.twig', ['rows' => $rows, 'site' => $site]);
    }

    #[Route('/{kind}', name: 'paper', methods: ['GET'])]
    public function show(ProcedureKind $kind): Response
    {
        return $this->view($kind, $this->blank($this->begun($kind)));
    }

    #[IsGranted('ROLE_MANAGER')]
    #[DeniedToPin]
    #[Route('/{kind}', name: 'paper_keep', methods: ['POST'])]
    public function keep(ProcedureKind $kind, Request $request): Response
    {
        $input = $this->read($request, 'paper');
        $by = $this->account->get();
        $id = $input->id();
        $number = $input->text('number', true, 40);
        $body = $input->text('body', true, self::LONGEST);
        $reason = $input->text('reason', true);
        $authority = $input->text('approved_by', false, 120);
        $on = $input->day('approved_on');
        $approval = $input->text('approval_number', false, 60);
        $from = $input->day('from');
        $approved = [$authority, (string) $on, $approval];
        if (\in_array('', $approved, true) && implode('', $approved) !== '') {
            $input->refuse('approved_by', 'paper.problem.approval');
        }
        if ($from !== null && $kind->needsApproval() && $authority === '') {
            $input->refuse('from', 'paper.problem.unapproved');
        }
        if (!$input->isGood()) {
            return $this->view($kind, $input);
        }
        $now = $this->now->instant();
        $zone = $by->site->zone();
        $start = $from === null ? null : WallTime::parse("$from 00:00", $zone, $now);
        $this->written->add($id, $by, $kind, [
            'number' => $number,
            'body' => $body,
            // Nothing is in force before it was written down.
            'from' => $start === null ? null : ($now->isAfter($start) ? $now : $start),
            'withdrawn' => $input->isOn('withdrawn'),
            'approved_by' => $authority,
            'approved_on' => $on === null ? null : LocalDate::ofIso($on),
            'approval_number' => $approval,
            'reason' => $reason,
        ]);

        return $this->kept('paper.kept', 'paper', ['kind' => $kind->value]);
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('/{kind}/trained', name: 'paper_trained', methods: ['POST'])]
    public function train(ProcedureKind $kind, Request $request): Response
    {
        $input = $this->read($request, 'trained');
        $inForce = $this->procedures->inForce($this->account->get()->site, $kind);
        $id = $input->id();
        if ($inForce === null) {
            $input->refuse('form', 'paper.problem.not_in_force');
        }
        if ($inForce === null || !$input->isGood()) {
            return $this->view($kind, $input);
        }
        $this->written->train($id, $this->account->get(), $inForce->id);

        return $this->kept('paper.trained_kept', 'paper', ['kind' => $kind->value]);
    }

    #[IsGranted('ROLE_MANAGER')]
    #[DeniedToPin]
    #[Route('/{kind}/scan', name: 'paper_scan', methods: ['POST'])]
    public function attach(ProcedureKind $kind, Request $request): Response
    {
        $input = $this->read($request, 'scan');
        $id = $input->id();
        $by = $this->account->get();
        $version = $this->procedures->ofKind($by->site, $kind)[0] ?? throw $this->createNotFoundException();
        $file = $request->files->get('file');
        $content = $file instanceof UploadedFile && $file->isValid() ? $file->getContent() : '';
        $type = $content === '' ? '' : (string) (new \finfo(\FILEINFO_MIME_TYPE))->buffer($content);
        if (\strlen($content) > self::LARGEST_SCAN || !\in_array($type, self::SCANS, true)) {
            $input->refuse('file', 'paper.problem.scan');
        }
        if (!$input->isGood() || !$file instanceof UploadedFile) {
            return $this->view($kind, $this->blank($this->begun($kind)), $input);
        }
        $name = mb_substr(mb_scrub(basename($file->getClientOriginalName())), 0, 100);
        $this->written->attach($id, $by, $version->id, $name, $type, $content);

        return $this->kept('paper.scan_kept', 'paper', ['kind' => $kind->value]);
    }

    #[Route(
        '/{kind}/scan/{scan}',
        name: 'paper_scanned',
        requirements: ['scan' => Requirement::UUID],
        methods: ['GET'],
    )]
    public function scan(ProcedureKind $kind, string $scan): Response
    {
        $found = $this->procedures->scan($this->account->get()->site, $scan) ?? throw $this->createNotFoundException();
        if (!hash_equals($found['sha256'], hash('sha256', $found['content']))) {
            throw AlteredFile::named('scan');
        }

        return self::download($found['content'], $found['type'], $kind->value.'-'.substr($scan, 0, 8));
    }

    #[Route('/{kind}/paper.pdf', name: 'paper_pdf', methods: ['GET'])]
    public function pdf(ProcedureKind $kind): Response
    {
        $site = $this->account->get()->site;
        $version = $this->procedures->ofKind($site, $kind)[0] ?? throw $this->createNotFoundException();
        $html = $this->twig->render('reporting/sop/paper.html.twig', [
            'site' => $site,
            'kind' => $kind,
            'version' => $version,
            'in_force' => $this->procedures->inForce($site, $kind),
            'trained' => $this->procedures->trained($version->id),
            'scans' => $this->procedures->scans($version->id),
            'made' => $this->now->instant(),
        ]);
        $process = new Process(['weasyprint', '-', '-'], null, null, $html, self::PDF_SECONDS);

        return self::download($process->mustRun()->getOutput(), 'application/pdf', $kind->value);
    }

    /** @return array<string, string> the latest version, or a text to begin with */
    private function begun(ProcedureKind $kind): array
    {
        $site = $this->account->get()->site;
        $latest = $this->procedures->ofKind($site, $kind)[0] ?? null;

        return $latest === null
            ? ['number' => GuidedText::number($kind), 'body' => $this->texts->of($site, $kind)]
            : [
                'number' => $latest->number,
                'body' => $latest->body,
                'approved_by' => $latest->approvedBy,
                'approved_on' => $latest->approvedOn?->iso() ?? '',
                'approval_number' => $latest->approvalNumber,
            ];
    }

    private function view(ProcedureKind $kind, FormInput $input, ?FormInput $scan = null): Response
    {
        $by = $this->account->get();
        $versions = $this->procedures->ofKind($by->site, $kind);
        $inForce = $this->procedures->inForce($by->site, $kind);
        $shown = $inForce ?? $versions[0] ?? null;

        return $this->page('reporting/sop/show.html.twig', $input, [
            'site' => $by->site,
            'kind' => $kind,
            'citation' => $this->rules->of($by->site)->get(ProcedureRules::class)->citation($kind),
            'versions' => $versions,
            'in_force' => $inForce,
            'shown' => $shown,
            'trained' => $shown === null ? [] : $this->procedures->trained($shown->id),
            'asks_training' => $inForce !== null && !$this->procedures->isTrained($by, $inForce->id),
            'scans' => self::scansOf($versions, $this->procedures),
            'scan_problems' => $scan->problems ?? [],
        ]);
    }

    /**
     * @param list<ProcedureVersion> $versions
     *
     * @return array<string, list<array{id: string, name: string, type: string, sha256: string, by: string}>> by version
     */
    private static function scansOf(array $versions, Procedures $procedures): array
    {
        $scans = [];
        foreach ($versions as $one) {
            $scans[$one->id] = $procedures->scans($one->id);
        }

        return $scans;
    }

    private static function download(string $content, string $type, string $name): Response
    {
        $ending = ['application/pdf' => 'pdf', 'image/png' => 'png', 'image/jpeg' => 'jpg'][$type] ?? 'bin';

        return new Response($content, headers: [
            'Content-Type' => $type,
            'Content-Disposition' => HeaderUtils::makeDisposition(
                HeaderUtils::DISPOSITION_ATTACHMENT,
                "$name.$ending",
            ),
        ]);
    }
}
