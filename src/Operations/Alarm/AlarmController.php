<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Wording\EveryLanguage;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\App\Site\People\CurrentAccount;

/** The alarms: take one, settle it, put it off with a reason; what was told to whom; and whether they arrive at all. */
#[Route('/alarms')]
final class AlarmController extends FormController
{
    private const LONGEST_MINUTES = 120;

    public function __construct(
        private readonly Alarms $alarms,
        private readonly AlarmMessages $sendings,
        private readonly Ledger $ledger,
        private readonly AlarmLines $lines,
        private readonly Lanes $lanes,
        private readonly CurrentAccount $account,
        private readonly EveryLanguage $languages,
        private readonly TranslatorInterface $translator,
        private readonly Now $now,
    ) {
    }

    #[Route('', name: 'alarms', methods: ['GET'])]
    public function list(): Response
    {
        $site = $this->account->get()->site;

        return $this->page('operations/alarm/list.html.twig', $this->blank(), [
            'site' => $site,
            'open' => $this->alarms->open($site),
            'past' => $this->alarms->past($site),
            'last_test' => $this->alarms->lastTest($site),
            'still_open' => $this->lanes->countOpenActions($site),
            'is_test_due' => $this->lines->isTestDue($site),
        ]);
    }

    #[Route('/{alarm}', name: 'alarm', requirements: ['alarm' => Requirement::UUID], methods: ['GET'])]
    public function show(string $alarm): Response
    {
        return $this->one($this->find($alarm), $this->blank(['minutes' => '15']));
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('/{alarm}/take', name: 'alarm_take', requirements: ['alarm' => Requirement::UUID], methods: ['POST'])]
    public function take(string $alarm, Request $request): Response
    {
        $found = $this->find($alarm);
        $input = $this->read($request, 'alarm');
        if (!$input->isGood()) {
            return $this->one($found, $input);
        }
        $this->alarms->take($found, $this->account->get());

        return $this->kept('alarm.taken', 'alarm', ['alarm' => $alarm]);
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('/{alarm}/settle', name: 'alarm_settle', requirements: ['alarm' => Requirement::UUID], methods: ['POST'])]
    public function settle(string $alarm, Request $request): Response
    {
        $found = $this->find($alarm);
        $input = $this->read($request, 'alarm');
        $words = $input->text('words', true, 300);
        if (!$input->isGood()) {
            return $this->one($found, $input);
        }
        $this->alarms->settle($found, $this->account->get(), $words);

        return $this->kept('alarm.settled', 'alarm', ['alarm' => $alarm]);
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('/{alarm}/put-off', name: 'alarm_put_off', requirements: ['alarm' => Requirement::UUID], methods: ['POST'])]
    public function putOff(string $alarm, Request $request): Response
    {
        $found = $this->find($alarm);
        $input = $this->read($request, 'alarm');
        $reason = $input->text('reason', true, 300);
        $minutes = $input->whole('minutes', 1, self::LONGEST_MINUTES, true);
        if (!$input->isGood() || $minutes === null) {
            return $this->one($found, $input);
        }
        $this->alarms->putOff($found, $this->account->get(), $minutes, $reason);

        return $this->kept('alarm.put_off', 'alarm', ['alarm' => $alarm]);
    }

    /** Raises one of no cause, to see and hear whether it arrives. */
    #[IsGranted('ROLE_CREW')]
    #[Route('/test', name: 'alarm_test', methods: ['POST'])]
    public function test(Request $request): Response
    {
        $input = $this->read($request, 'alarm');
        if (!$input->isGood()) {
            return $this->kept('entry.problem.expired', 'alarms');
        }
        $by = $this->account->get();
        $inEach = $this->languages->of(fn (): AlarmCause => new AlarmCause(
            AlarmWatch::TEST.$this->now->instant()->epoch,
            AlarmLevel::Act,
            $this->translator->trans('alarm.test.words', ['{by}' => $by->initials]),
            $this->translator->trans('alarm.test.does'),
            null,
            null,
            $this->generateUrl('alarms'),
        ));
        $raise = fn (): ?Alarm => $this->alarms->raise($by->site, $inEach[$by->site->language->value], $inEach);
        $alarm = $this->ledger->write($by->site, $raise);

        return $alarm === null
            ? $this->redirectToRoute('alarms', status: Response::HTTP_SEE_OTHER)
            : $this->kept('alarm.test.raised', 'alarm', ['alarm' => $alarm->id]);
    }

    private function one(Alarm $alarm, FormInput $input): Response
    {
        return $this->page('operations/alarm/alarm.html.twig', $input, [
            'site' => $this->account->get()->site,
            'alarm' => $alarm,
            'history' => $this->alarms->history($alarm->id),
            'sendings' => $this->sendings->of($alarm->id),
        ]);
    }

    private function find(string $id): Alarm
    {
        return $this->alarms->find($this->account->get()->site, $id) ?? throw $this->createNotFoundException();
    }
}
