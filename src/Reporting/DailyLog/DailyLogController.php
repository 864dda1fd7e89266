<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\DailyLog;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Ledger\Chain\SealLog;
use Verjuicer\App\Ledger\Chain\SiteDays;
use Verjuicer\App\Ledger\Chain\SiteKeys;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Machine\MachineStates;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Reporting\Proof\Verification;
use Verjuicer\App\Reporting\Proof\VerificationResult;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\People\DeniedToPin;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;

/** The sheet of a day, and a manager's signature under it. */
#[Route('/days')]
final class DailyLogController extends FormController
{
    public function __construct(
        private readonly DailyLogs $sheets,
        private readonly SiteDays $days,
        private readonly SealLog $seals,
        private readonly SiteKeys $keys,
        private readonly Verification $verification,
        private readonly MachineStates $machine,
        private readonly UserPasswordHasherInterface $hasher,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('', name: 'today', methods: ['GET'])]
    public function today(): Response
    {
        return $this->redirectToRoute('day', ['day' => $this->current()->iso()]);
    }

    #[Route('/{day}', name: 'day', requirements: ['day' => '\d{4}-\d\d-\d\d'], methods: ['GET'])]
    public function show(string $day): Response
    {
        return $this->view($this->sheet($day), $this->blank());
    }

    #[IsGranted('ROLE_MANAGER')]
    #[DeniedToPin]
    #[Route('/{day}', name: 'day_sign', requirements: ['day' => '\d{4}-\d\d-\d\d'], methods: ['POST'])]
    public function sign(string $day, Request $request): Response
    {
        $sheet = $this->sheet($day);
        $by = $this->account->get();
        $now = $this->now->instant();
        $input = $this->read($request, 'day');
        $id = $input->id();
        if ($this->sheets->isSigned($by->site, $id)) {
            return $this->kept('day.signed', 'day', ['day' => $day]);
        }
        if (!$this->hasher->isPasswordValid($by, $input->typed->getString('password'))) {
            $input->refuse('password', 'day.problem.password');
        }
        if (!self::asks($sheet, $by, $now)) {
            $input->refuse('form', 'day.problem.nothing');
        }
        $isOver = !$sheet->signsFrom->isAfter($now);
        if (!$isOver && !$input->isOn('until_now')) {
            $input->refuse('until_now', 'day.problem.until');
        }
        $reasons = [];
        foreach ($sheet->open() as $index => $open) {
            $reason = $input->text('reason'.$index);
            $reasons[$open['key']] = $reason;
            if ($reason === '') {
                $input->refuse('reason'.$index, 'day.problem.reason');
            }
        }
        $verified = $this->verification->between(
            $by->site,
            $this->days->before($by->site, $sheet->day),
            $sheet->seal->position ?? 0,
        );
        if (!$verified->holds() && !$input->isOn('seen')) {
            $input->refuse('seen', 'day.problem.broken');
        }
        if (!$input->isGood()) {
            return $this->view($sheet, $input, $verified);
        }
        $until = $isOver ? null : ($now->isAfter($sheet->to) ? $sheet->to : $now);
        $this->sheets->sign($id, $sheet, $by, $reasons, $until, $verified->breaks);

        return $this->kept('day.signed', 'day', ['day' => $day]);
    }

    /** Whether this log has anything to sign. */
    private static function asks(DailyLog $sheet, Account $by, Instant $now): bool
    {
        $whole = $sheet->whole();
        $hasSigned = array_filter(
            $whole,
            static fn (DailyLogSignature $one): bool => $one->accountId === $by->id->toRfc4122(),
        ) !== [];

        return match (true) {
            $sheet->amendments !== [], $whole === [] => true,
            default => !$hasSigned && $by->site->asksSecondSignature && \count($whole) < 2
                && !$sheet->signsFrom->isAfter($now),
        };
    }

    private function sheet(string $day): DailyLog
    {
        $date = LocalDate::ofIso($day);
        if ($date === null || $date->isAfter($this->current())) {
            throw $this->createNotFoundException();
        }

        return $this->sheets->of($this->account->get()->site, $date);
    }

    private function current(): LocalDate
    {
        return LocalDate::ofInstant($this->now->instant(), $this->account->get()->site->zone());
    }

    private function view(DailyLog $sheet, FormInput $input, ?VerificationResult $verified = null): Response
    {
        $by = $this->account->get();
        $now = $this->now->instant();

        return $this->page('reporting/daily_log/day.html.twig', $input, [
            'walked' => $this->machine->all()['verify'] ?? null,
            'sheet' => $sheet,
            'site' => $by->site,
            'open' => $sheet->open(),
            'is_today' => !$this->current()->isAfter($sheet->day),
            'is_over' => !$sheet->signsFrom->isAfter($now),
            'now' => $now,
            'asks' => self::asks($sheet, $by, $now),
            'breaks' => $verified->breaks ?? [],
            'key' => $this->keys->publicKey($by->site),
            'sealed' => $this->seals->newest($by->site),
            'lacks_second' => $by->site->asksSecondSignature && \count($sheet->whole()) === 1,
        ]);
    }
}
