<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Site\People\CurrentAccount;

/** Who is on duty when, how they are reached, what wakes them, and when the next is told. */
#[Route('/duty')]
final class DutyController extends FormController
{
    private const LONGEST_MINUTES = 120;

    public function __construct(
        private readonly DutyRoster $duty,
        private readonly CurrentAccount $account,
        private readonly MeasureFormatter $figures,
        private readonly Now $now,
    ) {
    }

    #[Route('', name: 'duty', methods: ['GET'])]
    public function show(): Response
    {
        return $this->view($this->blank([
            'from' => $this->figures->timeOfDay('18:00'),
            'to' => $this->figures->timeOfDay('06:00'),
            'in_line' => '1',
        ]));
    }

    #[IsGranted('ROLE_MANAGER')]
    #[Route('/shifts', name: 'duty_shift_add', methods: ['POST'])]
    public function add(Request $request): Response
    {
        $input = $this->read($request, 'duty');
        $site = $this->account->get()->site;
        $who = $input->text('who', true);
        $inLine = $input->whole('in_line', 1, 9, true);
        $days = array_values(array_filter(
            range(1, 7),
            static fn (int $day): bool => $input->isOn('day_'.$day),
        ));
        $times = [];
        foreach (['from', 'to'] as $field) {
            $times[$field] = $input->timeOfDay($field, 'duty.problem.time') ?? '';
        }
        if ($days === []) {
            $input->refuse('days', 'duty.problem.days');
        }
        $ids = array_map(static fn (Contact $one): string => $one->accountId, $this->duty->contacts($site));
        if (!\in_array($who, $ids, true)) {
            $input->refuse('who', 'duty.problem.who');
        }
        if (!$input->isGood() || $inLine === null) {
            return $this->view($input);
        }
        $this->duty->addShift($site, $who, $days, $times['from'], $times['to'], $inLine);

        return $this->kept('duty.kept', 'duty');
    }

    #[IsGranted('ROLE_MANAGER')]
    #[Route(
        '/shifts/{shift}/remove',
        name: 'duty_shift_remove',
        requirements: ['shift' => Requirement::UUID],
        methods: ['POST'],
    )]
    public function remove(string $shift, Request $request): Response
    {
        $site = $this->account->get()->site;
        $ids = array_map(static fn (DutyShift $one): string => $one->id, $this->duty->shifts($site));
        if (!\in_array($shift, $ids, true)) {
            throw $this->createNotFoundException();
        }
        $input = $this->read($request, 'duty');
        if (!$input->isGood()) {
            return $this->view($input);
        }
        $this->duty->removeShift($site, $shift);

        return $this->kept('duty.kept', 'duty');
    }

    #[IsGranted('ROLE_MANAGER')]
    #[Route('/contacts', name: 'duty_contacts', methods: ['POST'])]
    public function contacts(Request $request): Response
    {
        $input = $this->read($request, 'duty');
        $site = $this->account->get()->site;
        $kept = [];
        foreach ($this->duty->contacts($site) as $contact) {
            $mail = $input->text('mail_'.$contact->initials, false, 120);
            $phone = $input->text('phone_'.$contact->initials, false, 30);
            if ($mail !== '' && filter_var($mail, \FILTER_VALIDATE_EMAIL) === false) {
                $input->refuse('mail_'.$contact->initials, 'duty.problem.mail');
            }
            if ($phone !== '' && preg_match('/^\+?[\d ()-]{4,30}$/D', $phone) !== 1) {
                $input->refuse('phone_'.$contact->initials, 'duty.problem.phone');
            }
            $kept[$contact->accountId] = [$mail, $phone];
        }
        if (!$input->isGood()) {
            return $this->view($input);
        }
        foreach ($kept as $accountId => [$mail, $phone]) {
            $this->duty->keepContact($site, $accountId, $mail, $phone);
        }

        return $this->kept('duty.kept', 'duty');
    }

    #[IsGranted('ROLE_MANAGER')]
    #[Route('/levels', name: 'duty_levels', methods: ['POST'])]
    public function levels(Request $request): Response
    {
        $input = $this->read($request, 'duty');
        $plan = [];
        foreach (AlarmLevel::cases() as $level) {
            $of = static fn (string $when): array => array_values(array_filter(
                AlarmChannel::cases(),
                static fn (AlarmChannel $one): bool => $input->isOn("{$level->value}_{$when}_{$one->value}"),
            ));
            $minutes = $input->whole($level->value.'_minutes', 0, self::LONGEST_MINUTES) ?? 0;
            $plan[$level->value] = new EscalationPlan($of('day'), $of('night'), $minutes);
        }
        if (!$input->isGood()) {
            return $this->view($input);
        }
        $this->duty->keepPlan($this->account->get(), $plan);

        return $this->kept('duty.kept', 'duty');
    }

    private function view(FormInput $input): Response
    {
        $site = $this->account->get()->site;
        $now = $this->now->instant();

        return $this->page('operations/alarm/duty.html.twig', $input, [
            'site' => $site,
            'shifts' => $this->duty->shifts($site),
            'contacts' => $this->duty->contacts($site),
            'plan' => $this->duty->plan($site),
            'line' => $this->duty->line($site, $now),
            'is_night' => $this->duty->isNight($site, $now),
            'levels' => AlarmLevel::cases(),
            'channels' => AlarmChannel::cases(),
        ]);
    }
}
