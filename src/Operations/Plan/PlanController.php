<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\Core\Plan\Shift;

/** Plans, and the order of one: which meals, for how many, what is on the menu, what has to be bought. */
#[Route('/plans')]
final class PlanController extends FormController
{
    private const MOST_GUESTS = 5000;
    private const MOST_SHIFTS = 12;
    private const MOST_DISHES = 40;
    private const MOST_MEALS = 12;
    private const FARTHEST = 366 * 24 * 3600; // seconds
    private const LONGEST = 14 * 24 * 3600; // seconds between two meals

    public function __construct(
        private readonly Plans $plans,
        private readonly PlanSheets $sheets,
        private readonly Products $products,
        private readonly DishDefaults $defaults,
        private readonly DishForm $form,
        private readonly Stock $stock,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('', name: 'plans', methods: ['GET'])]
    public function list(): Response
    {
        return $this->all($this->blank(['guests' => '']));
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('', name: 'plan_new', methods: ['POST'])]
    public function begin(Request $request): Response
    {
        $input = $this->read($request, 'plan');
        $site = $this->account->get()->site;
        $id = $input->id();
        $name = $input->text('name', true, 80);
        $service = $this->service($input, 'first');
        if ($service === null) {
            return $this->all($input);
        }
        $service = new Service($service->id, $name, $service->at, $service->guests);
        $this->plans->add(new Plan($id, $site, $name, $service, $this->account->get(), $this->now->instant()));

        return $this->redirectToRoute('plan', ['plan' => $id->toRfc4122()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/{plan}', name: 'plan', requirements: ['plan' => Requirement::UUID], methods: ['GET'])]
    public function order(string $plan): Response
    {
        return $this->ordered($this->find($plan), $this->blank());
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/{plan}/meals', name: 'plan_meal', requirements: ['plan' => Requirement::UUID], methods: ['POST'])]
    public function meal(string $plan, Request $request): Response
    {
        $plan = $this->find($plan);
        $input = $this->read($request, 'plan');
        $given = $input->text('service', most: 36);
        $service = $this->service($input, $given === '' ? Uuid::v7()->toRfc4122() : $given, $plan);
        if ($given === '' && \count($plan->services()) >= self::MOST_MEALS) {
            $input->refuse('form', 'plan.problem.too_many');
        }
        if ($service === null || !$input->isGood()) {
            return $this->ordered($plan, $input);
        }
        $plan->serve($service);
        $this->plans->keep();

        return $this->kept('plan.kept', 'plan', ['plan' => $plan->id->toRfc4122()]);
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/{plan}/dishes', name: 'plan_dish_add', requirements: ['plan' => Requirement::UUID], methods: ['POST'])]
    public function add(string $plan, Request $request): Response
    {
        $plan = $this->find($plan);
        $input = $this->read($request, 'plan');
        $id = $input->id();
        $product = $this->products->find($plan->site, $input->text('product', true));
        $service = $plan->service($input->text('service'));
        $portions = $input->whole('portions', 1, self::MOST_GUESTS) ?? $service->guests;
        $plate = $input->grams('plate');
        $school = $input->choice('school', CookStyle::class) ?? CookStyle::LowSlow;
        if ($product === null) {
            $input->refuse('product', 'new.problem.product');
        }
        if (\count($this->plans->dishes($plan)) >= self::MOST_DISHES) {
            $input->refuse('form', 'plan.problem.too_many');
        }
        if (!$input->isGood() || $product === null) {
            return $this->ordered($plan, $input);
        }
        $onHand = $this->stock->of($plan->site)[$product->id->toRfc4122()] ?? null;
        $ofOne = ($onHand->lots[0] ?? null)?->lot->gramsOfOne();
        $facts = $this->defaults->of($product, $school, $portions, $plate, $ofOne);
        $this->plans->add(new PlannedDish($id, $plan->site, $plan, $product, $service->id, $facts));

        return $this->kept('plan.added', 'plan', ['plan' => $plan->id->toRfc4122()]);
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/{plan}/shifts', name: 'plan_shifts', requirements: ['plan' => Requirement::UUID], methods: ['POST'])]
    public function shifts(string $plan, Request $request): Response
    {
        $plan = $this->find($plan);
        $input = $this->read($request, 'plan');
        $shifts = [];
        for ($n = 0; $n < self::MOST_SHIFTS; ++$n) {
            $who = $input->text("who_$n", most: 40);
            $from = $this->form->moment($input, "from_$n", $plan->site, $who !== '');
            $to = $this->form->moment($input, "to_$n", $plan->site, $who !== '');
            if ($who === '' || $from === null || $to === null) {
                continue;
            }
            if (!$to->isAfter($from)) {
                $input->refuse("to_$n", 'plan.problem.shift');
            }
            $shifts[] = new Shift($who, $from, $to);
        }
        if (!$input->isGood()) {
            return $this->ordered($plan, $input);
        }
        $plan->staff($shifts);
        $this->plans->keep();

        return $this->kept('plan.kept', 'plan', ['plan' => $plan->id->toRfc4122()]);
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/{plan}/retire', name: 'plan_retire', requirements: ['plan' => Requirement::UUID], methods: ['POST'])]
    public function retire(string $plan, Request $request): Response
    {
        $plan = $this->find($plan);
        $input = $this->read($request, 'plan');
        if (!$input->isGood()) {
            return $this->ordered($plan, $input);
        }
        $plan->isRetired = true;
        $this->plans->keep();

        return $this->kept('plan.retired', 'plans');
    }

    private function service(FormInput $input, string $id, ?Plan $plan = null): ?Service
    {
        $site = $this->account->get()->site;
        $name = $input->text('name', true, 80);
        $at = $this->form->moment($input, 'at', $site, true);
        $guests = $input->whole('guests', 1, self::MOST_GUESTS, true);
        $now = $this->now->instant();
        if ($at !== null && abs($at->epoch - $now->epoch) > self::FARTHEST) {
            $input->refuse('at', 'plan.problem.meal');
        }
        foreach ($plan?->services() ?? [] as $other) {
            if ($at !== null && $other->id !== $id && abs($at->epoch - $other->at->epoch) > self::LONGEST) {
                $input->refuse('at', 'plan.problem.meal');
            }
        }

        return $input->isGood() && $at !== null && $guests !== null ? new Service($id, $name, $at, $guests) : null;
    }

    private function find(string $id): Plan
    {
        return $this->plans->find($this->account->get()->site, $id) ?? throw $this->createNotFoundException();
    }

    private function all(FormInput $input): Response
    {
        $site = $this->account->get()->site;
        $now = $this->now->instant();
        $plans = $this->plans->of($site);

        return $this->page('operations/plan/list.html.twig', $input, [
            'site' => $site,
            'ahead' => array_reverse(
                array_filter($plans, static fn (Plan $one): bool => $one->last()->epoch >= $now->epoch),
            ),
            'over' => array_filter($plans, static fn (Plan $one): bool => $one->last()->epoch < $now->epoch),
        ]);
    }

    private function ordered(Plan $plan, FormInput $input): Response
    {
        return $this->page('operations/plan/order.html.twig', $input, [
            'site' => $plan->site,
            'plan' => $plan,
            'sheet' => $this->sheets->of($plan),
            'products' => $this->products->of($plan->site),
            'schools' => CookStyle::cases(),
            'usual_plate' => DishDefaults::PLATE_GRAMS,
            'shift_rows' => range(0, min(self::MOST_SHIFTS - 1, \count($plan->shifts()) + 1)),
            'now' => $this->now->instant(),
        ]);
    }
}
