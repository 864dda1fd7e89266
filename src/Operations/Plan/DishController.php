<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Forecast\CoolingOdds;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Plan\DishRest;
use Verjuicer\Core\Plan\HeatPlan;
use Verjuicer\Core\Plan\PlanOption;
use Verjuicer\Core\Plan\PlanOptionKind;

/** One dish of a plan: how it is cooked, moved, mended; and how it becomes a real batch. */
#[Route('/plans/{plan}/dishes/{dish}', requirements: ['plan' => Requirement::UUID, 'dish' => Requirement::UUID])]
final class DishController extends FormController
{
    private const GRAIN = 300; // seconds
    private const MOST_MOVED = 3 * 24 * 60; // minutes at once
    /** °C of a pit that are set beside each other. */
    private const SETS = [107.0, 121.0, 135.0, 149.0];

    public function __construct(
        private readonly Plans $plans,
        private readonly PlanSheets $sheets,
        private readonly PlannedBatches $batches,
        private readonly DishForm $dishForm,
        private readonly Pits $pits,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('', name: 'plan_dish', methods: ['GET'])]
    public function show(string $plan, string $dish): Response
    {
        $dish = $this->find($plan, $dish);
        $filled = $this->dishForm->filled($dish->facts(), $dish->service, $dish->site);

        return $this->form($dish, $this->blank($filled));
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('', name: 'plan_dish_keep', methods: ['POST'])]
    public function keep(string $plan, string $dish, Request $request): Response
    {
        $dish = $this->find($plan, $dish);
        $input = $this->read($request, 'plan');
        $service = $dish->plan->service($input->text('service'));
        $facts = $this->dishForm->read($input, $dish->site, $dish->facts(), $service->at);
        $this->refuseReal($dish, $input);
        if ($facts === null || !$input->isGood()) {
            return $this->form($dish, $input);
        }
        $dish->change($facts);
        $dish->service = $service->id;
        $this->plans->keep();

        return $this->scheduled($dish, 'plan.kept');
    }

    /** Earlier or later, by minutes or to a moment; all that depends on it moves with it. */
    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/move', name: 'plan_dish_move', methods: ['POST'])]
    public function move(string $plan, string $dish, Request $request): Response
    {
        $dish = $this->find($plan, $dish);
        $input = $this->read($request, 'plan');
        $by = $input->text('by');
        if (preg_match('/^-?\d{1,4}$/D', $by) !== 1 || abs((int) $by) > self::MOST_MOVED) {
            $input->refuse('form', 'plan.problem.moved');
        }
        $this->refuseReal($dish, $input);
        $sheet = $this->sheets->of($dish->plan)->dish($dish->id->toRfc4122());
        if (!$input->isGood() || $sheet === null) {
            return $this->form($dish, $input);
        }
        $to = $sheet->schedule->load->epoch + 60 * (int) $by;
        $load = Instant::ofEpoch(self::GRAIN * (int) round($to / self::GRAIN));
        if (!DishForm::isLoadable($load, $dish->serve())) {
            $input->refuse('form', 'plan.problem.load');

            return $this->form($dish, $input);
        }
        $dish->change($dish->facts()->loadedAt($load));
        $this->plans->keep();

        return $this->scheduled($dish, null);
    }

    /** A way out, taken: worked out anew, so that what is taken is what holds now. */
    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/mend', name: 'plan_dish_mend', methods: ['POST'])]
    public function mend(string $plan, string $dish, Request $request): Response
    {
        $dish = $this->find($plan, $dish);
        $input = $this->read($request, 'plan');
        $kind = $input->choice('way', PlanOptionKind::class, true);
        $this->refuseReal($dish, $input);
        $sheet = $this->sheets->of($dish->plan);
        $of = $sheet->dish($dish->id->toRfc4122());
        $way = $of === null ? null : self::way($sheet->waysOut($of), $kind);
        if (!$input->isGood()) {
            return $this->form($dish, $input);
        }
        if ($way === null) {
            $this->addFlash('done', 'plan.no_longer');

            return $this->scheduled($dish, null);
        }
        $mended = $way->after->dish;
        if ($mended->serve->epoch !== $dish->serve()->epoch) {
            $service = $dish->plan->service($dish->service);
            $dish->plan->serve(new Service($service->id, $service->name, $mended->serve, $service->guests));
        }
        $dish->change($dish->facts()->mended($mended, $dish->site->unit));
        $this->plans->keep();

        return $this->scheduled($dish, 'plan.mended');
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/remove', name: 'plan_dish_remove', methods: ['POST'])]
    public function remove(string $plan, string $dish, Request $request): Response
    {
        $dish = $this->find($plan, $dish);
        $input = $this->read($request, 'plan');
        $this->refuseReal($dish, $input);
        if (!$input->isGood()) {
            return $this->form($dish, $input);
        }
        $dish->isRemoved = true;
        $this->plans->keep();

        return $this->kept('plan.removed', 'plan', ['plan' => $dish->plan->id->toRfc4122()]);
    }

    /** From which moment on plans hear own cooks of the product: from now on, or all of them again. */
    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/hear', name: 'plan_dish_hear', methods: ['POST'])]
    public function hear(string $plan, string $dish, Request $request): Response
    {
        $dish = $this->find($plan, $dish);
        $input = $this->read($request, 'plan');
        if (!$input->isGood()) {
            return $this->form($dish, $input);
        }
        $dish->product->hear($input->text('from') === 'now' ? $this->now->instant() : null);
        $this->plans->keep();

        return $this->kept('plan.kept', 'plan_dish', [
            'plan' => $dish->plan->id->toRfc4122(),
            'dish' => $dish->id->toRfc4122(),
        ]);
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('/batch', name: 'plan_dish_make', methods: ['POST'])]
    public function make(string $plan, string $dish, Request $request): Response
    {
        $dish = $this->find($plan, $dish);
        $input = $this->read($request, 'plan');
        $sheet = $this->sheets->of($dish->plan)->dish($dish->id->toRfc4122());
        if ($dish->batch === null && $sheet?->isUnsafe() === true && !$input->isOn('sure')) {
            $input->refuse('form', 'plan.problem.unsafe');
        }
        if (!$input->isGood() || $sheet === null) {
            return $this->form($dish, $input);
        }
        try {
            $batch = $this->batches->make($sheet, $this->account->get());
        } catch (Problem $problem) {
            return $this->form($dish, $this->refused($request, $problem));
        }

        return $this->redirectToRoute('batch', ['id' => $batch->id->toRfc4122()], Response::HTTP_SEE_OTHER);
    }

    /** A batch that runs late is served later: the meal moves, and its record says by when it is wanted now. */
    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/later', name: 'plan_dish_later', methods: ['POST'])]
    public function later(string $plan, string $dish, Request $request): Response
    {
        $dish = $this->find($plan, $dish);
        $input = $this->read($request, 'plan');
        $id = $input->id();
        $sheet = $this->sheets->of($dish->plan)->dish($dish->id->toRfc4122());
        if (!$input->isGood() || $sheet === null) {
            return $this->form($dish, $input);
        }
        $serve = DishRescues::later($sheet);
        if ($serve === null) {
            return $this->scheduled($dish, 'plan.no_longer');
        }
        if ($dish->batch !== null) {
            $this->batches->wantLater($sheet, $serve, $this->account->get(), $id);
        }
        $service = $dish->plan->service($dish->service);
        $dish->plan->serve(new Service($service->id, $service->name, $serve, $service->guests));
        $this->plans->keep();

        return $this->scheduled($dish, 'plan.served_later');
    }

    /** @param list<PlanOption> $ways */
    private static function way(array $ways, ?PlanOptionKind $kind): ?PlanOption
    {
        foreach ($ways as $way) {
            if ($way->kind === $kind) {
                return $way;
            }
        }

        return null;
    }

    private function refuseReal(PlannedDish $dish, FormInput $input): void
    {
        if ($dish->batch !== null) {
            $input->refuse('form', 'plan.problem.real');
        }
    }

    private function find(string $plan, string $id): PlannedDish
    {
        $plan = $this->plans->find($this->account->get()->site, $plan) ?? throw $this->createNotFoundException();

        return $this->plans->dish($plan, $id) ?? throw $this->createNotFoundException();
    }

    private function scheduled(PlannedDish $dish, ?string $sentence): Response
    {
        if ($sentence !== null) {
            $this->addFlash('done', $sentence);
        }

        return $this->redirectToRoute(
            'plan_schedule',
            ['plan' => $dish->plan->id->toRfc4122(), '_fragment' => 'dish-'.$dish->id->toRfc4122()],
            Response::HTTP_SEE_OTHER,
        );
    }

    private function form(PlannedDish $dish, FormInput $input): Response
    {
        $sheet = $this->sheets->of($dish->plan);
        $of = $sheet->dish($dish->id->toRfc4122()) ?? throw $this->createNotFoundException();

        return $this->page('operations/plan/dish.html.twig', $input, [
            'site' => $dish->site,
            'plan' => $dish->plan,
            'sheet' => $sheet,
            'of' => $of,
            'ways' => $sheet->waysOut($of),
            'pits' => $this->pits->of($dish->site),
            'places' => DishRest::PLACES,
            'holds' => DishRest::KEPT_HOT,
            'chills' => array_values(
                array_filter(
                    CoolingOdds::methods(),
                    static fn (Holding $one): bool => $one !== Holding::Counter,
                ),
            ),
            'wraps' => HeatPlan::WRAPS,
            'prices' => $this->prices($of),
        ]);
    }

    /** @return list<array{celsius: float, hours: array{int|null, int|null, int|null}}> what each heat costs in time */
    private function prices(DishSheet $of): array
    {
        $times = $this->sheets->times($of->dish->site);
        $dish = $of->schedule->dish;
        $prices = [];
        foreach (self::SETS as $set) {
            $done = $times->cook($dish->product, $dish->heat->at($set))->done
                ->at($of->pace)
                ->ofLast($of->pieces);
            $prices[] = ['celsius' => $set, 'hours' => [$done->by(0.1), $done->by(0.5), $done->by(0.9)]];
        }

        return $prices;
    }
}
