<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\Core\Measure\LocalDate;

/** When everything of a plan is, what it breaks, and what would mend it. */
#[Route('/plans/{plan}', requirements: ['plan' => Requirement::UUID])]
final class PlanScheduleController extends FormController
{
    /** Of so many dishes that break something are ways out worked out; each takes a while. */
    private const MOST_MENDED = 3;

    public function __construct(
        private readonly Plans $plans,
        private readonly PlanSheets $sheets,
        private readonly PlannedBatches $batches,
        private readonly DishRescues $rescues,
        private readonly PlanWords $words,
        private readonly MeasureFormatter $figures,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('/schedule', name: 'plan_schedule', methods: ['GET'])]
    public function schedule(string $plan): Response
    {
        return $this->scheduled($this->find($plan), $this->blank());
    }

    private function scheduled(Plan $plan, FormInput $input): Response
    {
        $sheet = $this->sheets->of($plan);
        $ways = $late = [];
        foreach ($sheet->dishes as $one) {
            if ($one->dish->batch !== null && $one->isLate()) {
                $late[] = ['of' => $one] + $this->rescues->of($one);
            }
            if ($one->conflicts !== [] && $one->dish->batch === null && \count($ways) < self::MOST_MENDED) {
                $found = $sheet->waysOut($one);
                if ($found !== []) {
                    $ways[] = ['of' => $one, 'ways' => $found];
                }
            }
        }

        return $this->page('operations/plan/schedule.html.twig', $input, [
            'site' => $plan->site,
            'plan' => $plan,
            'sheet' => $sheet,
            'picture' => PlanPicture::of($sheet, $this->words, $this->figures, $this->now->instant()),
            'ways' => $ways,
            'late' => $late,
            'next' => $this->nextDay($sheet),
            'now' => $this->now->instant(),
        ]);
    }

    /** Every planned batch whose work begins by the end of the next day of work becomes a real one. */
    #[IsGranted('ROLE_CREW')]
    #[Route('/batches', name: 'plan_make', methods: ['POST'])]
    public function make(string $plan, Request $request): Response
    {
        $plan = $this->find($plan);
        $input = $this->read($request, 'plan');
        $dishes = $this->nextDay($this->sheets->of($plan))['dishes'] ?? [];
        if ($dishes === []) {
            $input->refuse('form', 'plan.no_longer');
        }
        if (!$input->isGood()) {
            return $this->scheduled($plan, $input);
        }
        foreach ($dishes as $dish) {
            try {
                $this->batches->make($dish, $this->account->get());
            } catch (Problem $problem) {
                $this->addFlash('problem', $problem->sentence());
            }
        }

        return $this->kept('plan.made', 'plan_schedule', ['plan' => $plan->id->toRfc4122()]);
    }

    /**
     * The first day with work for batches not yet real. A dish that would likely miss a limit of the code is not
     * started with the others: somebody decides on its own page.
     *
     * @return array{day: LocalDate, dishes: list<DishSheet>, unsafe: list<DishSheet>}|null
     */
    private function nextDay(PlanSheet $sheet): ?array
    {
        $zone = $sheet->plan->site->zone();
        $days = [];
        foreach ($sheet->dishes as $one) {
            if ($one->dish->batch === null && $one->dish->serve()->isAfter($this->now->instant())) {
                $day = LocalDate::ofInstant($one->schedule->load, $zone);
                $days[$day->days][] = $one;
            }
        }
        if ($days === []) {
            return null;
        }
        $first = min(array_keys($days));

        return [
            'day' => LocalDate::ofInstant($days[$first][0]->schedule->load, $zone),
            'dishes' => array_values(
                array_filter($days[$first], static fn (DishSheet $one): bool => !$one->isUnsafe()),
            ),
            'unsafe' => array_values(array_filter($days[$first], static fn (DishSheet $one): bool => $one->isUnsafe())),
        ];
    }

    private function find(string $id): Plan
    {
        return $this->plans->find($this->account->get()->site, $id) ?? throw $this->createNotFoundException();
    }
}
