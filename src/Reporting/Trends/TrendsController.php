<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Trends;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Paging\Page;
use Verjuicer\App\Platform\Paging\PageKey;
use Verjuicer\App\Projection\Projections;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;

/** Deviations by place, as bars that link to their records. */
#[Route('/trends')]
final class TrendsController extends AbstractController
{
    private const DAYS = [7, 30, 90, 365];

    public function __construct(
        private readonly Trends $trends,
        private readonly Projections $projections,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('', name: 'trends', methods: ['GET'])]
    public function show(Request $request): Response
    {
        $site = $this->account->get()->site;
        [$days, $since] = $this->since($request);

        $durations = $this->trends->durations($site, $since);

        return $this->render('reporting/trends/trends.html.twig', [
            'site' => $site,
            'days' => $days,
            'choices' => self::DAYS,
            'groups' => [
                'by_rule' => $this->trends->grouped($site, $since, 'by_rule'),
                'by_product' => $this->trends->grouped($site, $since, 'by_product'),
                'by_hour' => $this->trends->grouped($site, $since, 'by_hour'),
                'by_unit' => $this->trends->grouped($site, $since, 'by_unit'),
            ],
            'pending' => $this->projections->pending($site),
            'punctuality' => $this->trends->punctuality($site, $since),
            'thermometers' => $this->trends->thermometers($site, $since),
            'durations' => $durations,
            'longest' => max([0, ...array_column($durations, 'ninetieth')]),
            'yields' => $this->trends->yields($site, $since),
            'scores' => $this->trends->scores($site, $since),
        ]);
    }

    #[Route('/gaps', name: 'trend_gaps', methods: ['GET'])]
    public function gaps(Request $request): Response
    {
        [$days, $since] = $this->since($request);

        $page = $this->trends->behindGaps($this->account->get()->site, $since, self::after($request));

        return $this->page('punctual', null, $days, $page);
    }

    #[Route(
        '/took/{stage}',
        name: 'trend_took',
        requirements: ['stage' => 'prep|cook|rest|hot_hold|cool|reheat'],
        methods: ['GET'],
    )]
    public function took(string $stage, Request $request): Response
    {
        [$days, $since] = $this->since($request);

        $page = $this->trends->longest($this->account->get()->site, $since, $stage, self::after($request));

        return $this->page('durations', $stage, $days, $page);
    }

    /** @param 'by_rule'|'by_product'|'by_hour'|'by_unit' $group */
    #[Route(
        '/{group}',
        name: 'trend',
        requirements: ['group' => 'by_rule|by_product|by_hour|by_unit'],
        methods: ['GET'],
    )]
    public function behind(string $group, Request $request): Response
    {
        [$days, $since] = $this->since($request);
        $name = $request->query->getString('name');

        $page = $this->trends->behind($this->account->get()->site, $since, $group, $name, self::after($request));

        return $this->page($group, $name, $days, $page);
    }

    /** @param Page<array<string, mixed>> $page */
    private function page(string $group, ?string $name, int $days, Page $page): Response
    {
        return $this->render('reporting/trends/behind.html.twig', [
            'group' => $group,
            'name' => $name,
            'days' => $days,
            'page' => $page,
        ]);
    }

    private static function after(Request $request): ?PageKey
    {
        return PageKey::parse($request->query->getString('after'));
    }

    /** @return array{int, Instant} with the tables it is counted from brought up to date */
    private function since(Request $request): array
    {
        $this->projections->bringUpToDate($this->account->get()->site);
        $days = $request->query->getInt('days', self::DAYS[1]);
        $days = \in_array($days, self::DAYS, true) ? $days : self::DAYS[1];

        return [$days, $this->now->instant()->plus(Span::ofHours(-24 * $days))];
    }
}
