<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Verjuicer\App\Ledger\Log\HeatTimes;
use Verjuicer\App\Operations\Batch\Yields;
use Verjuicer\App\Site\People\CurrentAccount;

/** What a plan gives to take along: lists to print, a calendar; and afterwards, what came of it. */
#[Route('/plans/{plan}', requirements: ['plan' => Requirement::UUID])]
final class PlanListsController extends AbstractController
{
    public function __construct(
        private readonly Plans $plans,
        private readonly PlanSheets $sheets,
        private readonly CurrentAccount $account,
    ) {
    }

    #[Route('/lists', name: 'plan_lists', methods: ['GET'])]
    public function lists(string $plan): Response
    {
        $plan = $this->find($plan);
        $sheet = $this->sheets->of($plan);
        $lists = ['prep' => [], 'fire' => [], 'pull' => []];
        foreach ($sheet->steps() as $row) {
            $lists[$row['step']->kind->list()][] = $row;
        }

        return $this->render('operations/plan/lists.html.twig', [
            'site' => $plan->site,
            'plan' => $plan,
            'sheet' => $sheet,
            'lists' => $lists,
        ]);
    }

    #[Route('/calendar.ics', name: 'plan_calendar', methods: ['GET'])]
    public function calendar(string $plan, PlanCalendar $calendar): Response
    {
        $plan = $this->find($plan);
        $name = trim((string) preg_replace('/[^A-Za-z0-9]+/', '-', $plan->name), '-');

        return new Response($calendar->of($this->sheets->of($plan)), headers: [
            'Content-Type' => 'text/calendar; charset=utf-8',
            'Content-Disposition' => HeaderUtils::makeDisposition(
                HeaderUtils::DISPOSITION_ATTACHMENT,
                ($name === '' ? 'plan' : $name).'.ics',
            ),
        ]);
    }

    #[Route('/after', name: 'plan_after', methods: ['GET'])]
    public function after(string $plan, HeatTimes $heatTimes, Yields $yields): Response
    {
        $plan = $this->find($plan);
        $sheet = $this->sheets->of($plan);
        $rows = [];
        foreach ($sheet->dishes as $one) {
            $batch = $one->dish->batch;
            if ($batch !== null) {
                $id = $batch->id->toRfc4122();
                $rows[] = [
                    'of' => $one,
                    'planned' => $one->dish->planned(),
                    'heat' => $heatTimes->of([$id])[$id] ?? null,
                    'yield' => $yields->of($batch),
                ];
            }
        }

        return $this->render('operations/plan/after.html.twig', [
            'site' => $plan->site,
            'plan' => $plan,
            'rows' => $rows,
        ]);
    }

    private function find(string $id): Plan
    {
        return $this->plans->find($this->account->get()->site, $id) ?? throw $this->createNotFoundException();
    }
}
