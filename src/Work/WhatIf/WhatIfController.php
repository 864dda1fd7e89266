<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\WhatIf;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\Core\Forecast\Cooling;
use Verjuicer\Core\Forecast\Crossing;
use Verjuicer\Core\Forecast\Fall;
use Verjuicer\Core\Forecast\Point;
use Verjuicer\Core\Forecast\Size;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/** Before the fact: how long a rest stays hot, and whether a cooling passes its gates, by method, size and start. A forecast, with its range. */
final class WhatIfController extends FormController
{
    private const DEEPEST_CM = 100;
    private const SHALLOWEST_CM = 0.1;

    public function __construct(private readonly RuleSetLibrary $ruleSets, private readonly CurrentAccount $account, private readonly Now $now)
    {
    }

    #[Route('/what-if', name: 'what_if', methods: ['GET'])]
    public function show(Request $request): Response
    {
        $site = $this->account->get()->site;
        $input = new FormInput($request->query);
        $answer = $request->query->count() === 0 ? null : $this->answer($input);

        return $this->page('forecast/what_if.html.twig', $input, ['site' => $site, 'methods' => Cooling::cases(), 'answer' => $answer, 'now' => $this->now->instant()]);
    }

    /** @return array{hot: Crossing|null, is_hot: bool, gates: list<array{limit: Threshold, within: Span, least: Span|null, most: Span|null, late: 'sure'|'maybe'|null}>}|null */
    private function answer(FormInput $input): ?array
    {
        $site = $this->account->get()->site;
        $method = $input->choice('method', Cooling::class, true);
        $start = $input->temperature('start', $site->unit, true);
        $around = $input->temperature('around', $site->unit);
        $depth = $input->number('depth', most: self::DEEPEST_CM);
        if ($depth !== null && $depth < self::SHALLOWEST_CM) {
            $input->refuse('depth', 'portion.problem.depth');
        }
        $grams = $input->grams('weight', $depth === null);
        if (!$input->isGood() || $method === null || $start === null) {
            return null;
        }
        $size = $depth !== null ? Size::ofLayer(10 * $depth) : Size::ofPiece($grams ?? 1);
        $now = $this->now->instant();
        $fall = Fall::ahead($now, Point::celsius($start), $method, $size, $around === null ? null : Point::celsius($around));
        $rules = $this->ruleSets->get($site->ruleSet);
        $hot = Point::celsius($rules->hot->threshold->printedIn($site->unit));
        $crossing = $fall->crossing($hot);
        // The cooling clock runs from the hot limit on; a fall from there is the same one.
        $below = Fall::ahead($now, min($hot, Point::celsius($start)), $method, $size, $around === null ? null : Point::celsius($around));
        $gates = [];
        foreach ([[$rules->coolingMiddle->threshold, $rules->coolingStage1->span], [$rules->cold->threshold, $rules->coolingTotal->span]] as [$limit, $within]) {
            $passes = $below->crossing(Point::celsius($limit->printedIn($site->unit)));
            $least = $passes === null ? null : Span::between($now, $passes->earliest);
            $most = $passes?->latest === null ? null : Span::between($now, $passes->latest);
            $gates[] = ['limit' => $limit, 'within' => $within, 'least' => $least, 'most' => $most, 'late' => match (true) {
                $least === null, $least->isLongerThan($within) => 'sure',
                $most === null, $most->isLongerThan($within) => 'maybe',
                default => null,
            }];
        }

        return ['hot' => $crossing, 'is_hot' => Point::celsius($start) > $hot, 'gates' => $gates];
    }
}
