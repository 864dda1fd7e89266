<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\WhatIf;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Settings\SiteRules;
use Verjuicer\Core\Food\Animal;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Food\Integrity;
use Verjuicer\Core\Forecast\Belief\Beliefs;
use Verjuicer\Core\Forecast\Belief\Surroundings;
use Verjuicer\Core\Forecast\Crossing;
use Verjuicer\Core\Forecast\Fall;
use Verjuicer\Core\Forecast\Lateness;
use Verjuicer\Core\Forecast\Point;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Measure\Weight;
use Verjuicer\Core\Record\RecordedProduct;
use Verjuicer\Core\Ruleset\CoolingRules;

/**
 * Before the fact: how long a rest stays hot, and whether a cooling passes its gates, by method, size and start. A
 * forecast, with its range.
 */
final class WhatIfController extends FormController
{
    private const DEEPEST = 1000.0; // mm
    private const SHALLOWEST = 1.0;

    public function __construct(
        private readonly SiteRules $rules,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('/what-if', name: 'what_if', methods: ['GET'])]
    public function show(Request $request): Response
    {
        $site = $this->account->get()->site;
        $input = FormInput::asked($request);
        $answer = $request->query->count() === 0 ? null : $this->answer($input);

        return $this->page('operations/what_if/what_if.html.twig', $input, [
            'site' => $site,
            'methods' => self::places(),
            'answer' => $answer,
            'now' => $this->now->instant(),
        ]);
    }

    /** @return list<Holding> the places of which anything can be said */
    private static function places(): array
    {
        return array_values(
            array_filter(Holding::cases(), static fn (Holding $one): bool => Surroundings::of($one) !== null),
        );
    }

    /**
     * @return array{hot: Crossing|null, hot_limit: Threshold, is_hot: bool, gates: list<array{limit: Threshold,
     *     within: Span, least: Span|null, most: Span|null, late: Lateness|null}>}|null
     */
    private function answer(FormInput $input): ?array
    {
        $site = $this->account->get()->site;
        $method = $input->choice('method', Holding::class, true);
        $start = $input->temperature('start', $site->unit, true);
        $around = $input->temperature('around', $site->unit);
        $depth = $input->millimeters('depth', self::SHALLOWEST, self::DEEPEST, 'portion.problem.depth');
        $grams = $input->grams('weight', $depth === null);
        if ($method !== null && Surroundings::of($method) === null) {
            $input->refuse('method', 'form.problem.choice');
        }
        if (!$input->isGood() || $method === null || $start === null) {
            return null;
        }
        $now = $this->now->instant();
        $rules = $this->rules->of($site);
        $limit = $rules->limits()->hot->threshold;
        $hot = Point::celsius($limit->printedIn($site->unit));
        $cold = Point::celsius($rules->limits()->cold->threshold->printedIn($site->unit));
        $warm = Point::celsius($start);
        $ahead = static fn (float $from, float $lowest): Fall => new Fall(
            Beliefs::ahead(
                new RecordedProduct(null, Animal::None, Form::Cut, Integrity::Intact, self::weight($grams), 1),
                $method,
                $from,
                $around === null ? null : Point::celsius($around),
                $depth === null ? null : $depth / 1000,
                false,
                $now->epoch,
                $site->elevationM,
            ),
            $now,
            $from,
            false,
            min($lowest, $from - 1.0),
        );
        $fall = $ahead($warm, $hot);
        // The cooling clock runs from the hot limit on; a fall from there is the same one.
        $below = $ahead(min($hot, $warm), $cold);
        $cooling = $rules->get(CoolingRules::class);
        $gates = [
            $this->gate($below, $cooling->middle->threshold, $cooling->stage1->span),
            $this->gate($below, $rules->limits()->cold->threshold, $cooling->total->span),
        ];

        return [
            'hot' => $fall->crossing($hot),
            'hot_limit' => $limit,
            'is_hot' => $warm > $hot,
            'gates' => $gates,
        ];
    }

    private static function weight(?int $grams): ?Weight
    {
        return $grams === null ? null : Weight::ofGrams($grams);
    }

    /** @return array{limit: Threshold, within: Span, least: Span|null, most: Span|null, late: Lateness|null} */
    private function gate(Fall $fall, Threshold $limit, Span $within): array
    {
        $celsius = Point::celsius($limit->printedIn($this->account->get()->site->unit));
        $passes = $fall->crossing($celsius);

        return [
            'limit' => $limit,
            'within' => $within,
            'least' => $passes === null ? null : Span::between($fall->from, $passes->earliest),
            'most' => $passes?->latest === null ? null : Span::between($fall->from, $passes->latest),
            'late' => Lateness::of($fall->late($celsius, $fall->from->plus($within))),
        ];
    }
}
