<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\DaySheet;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Machine\MachineStates;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\People\NotByPin;
use Verjuicer\Core\Measure\LocalDate;

/** The sheet of a day, and a manager's signature under it. */
#[Route('/days')]
final class DaySheetController extends FormController
{
    public function __construct(
        private readonly DaySheets $sheets,
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
    #[NotByPin]
    #[Route('/{day}', name: 'day_sign', requirements: ['day' => '\d{4}-\d\d-\d\d'], methods: ['POST'])]
    public function sign(string $day, Request $request): Response
    {
        $sheet = $this->sheet($day);
        $input = $this->read($request, 'day');
        $id = $input->id();
        if (!$this->hasher->isPasswordValid($this->account->get(), $input->typed->getString('password'))) {
            $input->refuse('password', 'day.problem.password');
        }
        $reasons = [];
        foreach ($sheet->open() as $index => $open) {
            $reason = $input->text('reason'.$index);
            $reasons[$open] = $reason;
            if ($reason === '') {
                $input->refuse('reason'.$index, 'day.problem.reason');
            }
        }
        if (!$input->isGood()) {
            return $this->view($sheet, $input);
        }
        $this->sheets->sign($id, $sheet, $this->account->get(), $reasons);

        return $this->kept('day.signed', 'day', ['day' => $day]);
    }

    private function sheet(string $day): DaySheet
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

    private function view(DaySheet $sheet, FormInput $input): Response
    {
        return $this->page('book/day_sheet/day.html.twig', $input, [
            'walked' => $this->machine->all()['verify'] ?? null,
            'sheet' => $sheet,
            'site' => $this->account->get()->site,
            'open' => $sheet->open(),
            'is_today' => !$this->current()->isAfter($sheet->day),
        ]);
    }
}
