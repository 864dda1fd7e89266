<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Trends;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Lane\BoardLanes;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;

/** What goes wrong where, as bars that lead to the records behind them. */
#[Route('/trends')]
final class TrendsController extends AbstractController
{
    private const DAYS = [7, 30, 90, 365];

    public function __construct(private readonly Trends $trends, private readonly BoardLanes $lanes, private readonly CurrentAccount $account, private readonly Now $now)
    {
    }

    #[Route('', name: 'trends', methods: ['GET'])]
    public function show(Request $request): Response
    {
        $site = $this->account->get()->site;
        [$days, $since] = $this->since($request);

        $durations = $this->trends->durations($site, $since);

        return $this->render('trends/trends.html.twig', [
            'site' => $site,
            'days' => $days,
            'choices' => self::DAYS,
            'groups' => [
                'by_rule' => $this->trends->grouped($site, $since, 'by_rule'),
                'by_product' => $this->trends->grouped($site, $since, 'by_product'),
                'by_hour' => $this->trends->grouped($site, $since, 'by_hour'),
                'by_unit' => $this->trends->grouped($site, $since, 'by_unit'),
            ],
            'punctuality' => $this->trends->punctuality($site, $since),
            'thermometers' => $this->trends->thermometers($site, $since),
            'durations' => $durations,
            'longest' => max([0, ...array_column($durations, 'ninetieth')]),
            'yields' => $this->trends->yields($site, $since),
        ]);
    }

    #[Route('/gaps', name: 'trend_gaps', methods: ['GET'])]
    public function gaps(Request $request): Response
    {
        [$days, $since] = $this->since($request);

        return $this->render('trends/behind.html.twig', ['group' => 'punctual', 'name' => null, 'days' => $days, 'batches' => $this->trends->behindGaps($this->account->get()->site, $since)]);
    }

    #[Route('/took/{stage}', name: 'trend_took', requirements: ['stage' => 'prep|cook|rest|hot_hold|cool|reheat'], methods: ['GET'])]
    public function took(string $stage, Request $request): Response
    {
        [$days, $since] = $this->since($request);

        return $this->render('trends/behind.html.twig', ['group' => 'durations', 'name' => $stage, 'days' => $days, 'batches' => $this->trends->longest($this->account->get()->site, $since, $stage)]);
    }

    /** @param 'by_rule'|'by_product'|'by_hour'|'by_unit' $group */
    #[Route('/{group}', name: 'trend', requirements: ['group' => 'by_rule|by_product|by_hour|by_unit'], methods: ['GET'])]
    public function behind(string $group, Request $request): Response
    {
        [$days, $since] = $this->since($request);
        $name = $request->query->getString('name');

        return $this->render('trends/behind.html.twig', ['group' => $group, 'name' => $name, 'days' => $days, 'batches' => $this->trends->behind($this->account->get()->site, $since, $group, $name)]);
    }

    /** @return array{int, Instant} with the lanes it is counted from brought up to date */
    private function since(Request $request): array
    {
        $this->lanes->bringUpToDate($this->account->get()->site, $this->now->instant());
        $days = $request->query->getInt('days', self::DAYS[1]);
        $days = \in_array($days, self::DAYS, true) ? $days : self::DAYS[1];

        return [$days, $this->now->instant()->plus(Span::ofHours(-24 * $days))];
    }
}
