<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\WhatIf;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Contracts\Cache\CacheInterface;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Settings\SiteRules;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Forecast\CoolingLimits;
use Verjuicer\Core\Forecast\CoolingOdds;
use Verjuicer\Core\Forecast\Point;

/** Before a cooling: how likely it passes its gates, how deep it may lie, and a table of that to hang on the wall. */
final class CoolingController extends FormController
{
    private const DEEPEST = 305.0; // mm
    private const SHALLOWEST = 5.0;

    public function __construct(
        private readonly SiteRules $rules,
        private readonly CurrentAccount $account,
        #[Autowire(service: 'cache.parts')] private readonly CacheInterface $cache,
    ) {
    }

    #[Route('/cooling', name: 'cooling', methods: ['GET'])]
    public function show(Request $request): Response
    {
        $site = $this->account->get()->site;
        $input = FormInput::asked($request);
        $rules = $this->rules->of($site);
        $gates = CoolingLimits::of($rules, $site->unit);
        $answer = $request->query->count() === 0 ? null : $this->answer($input, $gates);

        return $this->page('operations/what_if/cooling.html.twig', $input, [
            'site' => $site,
            'methods' => CoolingOdds::methods(),
            'answer' => $answer,
            'rows' => $this->table($gates, $site->elevationM),
            'limits' => $rules,
            'first' => $gates->first,
            'all' => $gates->all,
        ]);
    }

    /**
     * The same for every kitchen as high that has these gates, so it is worked out once.
     *
     * @return list<array{method: Holding, open: float|null, covered: float|null}>
     */
    private function table(CoolingLimits $gates, ?int $elevation): array
    {
        $key = 'cooling.'.hash('xxh128', serialize([get_object_vars($gates), $elevation]));

        return $this->cache->get($key, static fn (): array => array_map(
            static fn (Holding $method): array => [
                'method' => $method,
                'open' => CoolingOdds::deepest($method, false, null, $gates, $elevation),
                'covered' => CoolingOdds::deepest($method, true, null, $gates, $elevation),
            ],
            CoolingOdds::methods(),
        ));
    }

    /** @return array{odds: CoolingOdds, deepest: float|null}|null null where something is wrong with the question */
    private function answer(FormInput $input, CoolingLimits $gates): ?array
    {
        $method = $input->choice('method', Holding::class, true);
        $depth = $input->millimeters('depth', self::SHALLOWEST, self::DEEPEST, 'cooling.problem', true);
        $around = $input->temperature('around', $this->account->get()->site->unit);
        if ($method !== null && !\in_array($method, CoolingOdds::methods(), true)) {
            $input->refuse('method', 'form.problem.choice');
        }
        if (!$input->isGood() || $method === null || $depth === null) {
            return null;
        }
        $isCovered = $input->isOn('covered');
        $elevation = $this->account->get()->site->elevationM;
        $celsius = $around === null ? null : Point::celsius($around);

        return [
            'odds' => CoolingOdds::of($method, $depth / 1000, $isCovered, $celsius, $gates, $elevation),
            'deepest' => CoolingOdds::deepest($method, $isCovered, $celsius, $gates, $elevation),
        ];
    }
}
