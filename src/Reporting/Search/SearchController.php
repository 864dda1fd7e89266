<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Search;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Verjuicer\App\Catalogue\Recipe\Recipes;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Paging\PageKey;
use Verjuicer\App\Projection\Projections;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\Core\Measure\LocalDate;

/** One box for everything people remember; and where a lot, a thermometer's readings or a recipe went. */
final class SearchController extends AbstractController
{
    /**
     * A thermometer may have been in everything for years: its recent readings are in doubt. Another day can be chosen.
     */
    private const RECALL_DAYS = 30;

    public function __construct(
        private readonly Finder $finder,
        private readonly Projections $projections,
        private readonly Lots $lots,
        private readonly Thermometers $thermometers,
        private readonly Recipes $recipes,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('/find', name: 'search', methods: ['GET'])]
    public function find(Request $request): Response
    {
        $words = trim($request->query->getString('words'));
        $after = PageKey::parse($request->query->getString('after'));
        $lotsAfter = PageKey::parse($request->query->getString('lots_after'));
        $site = $this->account->get()->site;
        $this->projections->bringUpToDate($site);

        return $this->render('reporting/search/search.html.twig', [
            'words' => $words,
            'batches' => $words === '' ? null : $this->finder->batches($site, $words, $after),
            'lots' => $words === '' ? null : $this->finder->lots($site, $words, $lotsAfter),
            'thermometers' => $this->thermometers->of($site),
            'recipes' => $this->recipes->of($site),
            'pending' => $this->projections->pending($site),
        ]);
    }

    #[Route(
        '/recall/{kind}/{what}',
        name: 'recall',
        requirements: ['kind' => 'lot|thermometer|recipe'],
        methods: ['GET'],
    )]
    public function recall(string $kind, string $what, Request $request): Response
    {
        $site = $this->account->get()->site;
        $lot = $kind === 'lot' ? $this->lots->find($site, $what) : null;
        $name = match ($kind) {
            'lot' => $lot?->lot->number,
            'thermometer' => $this->thermometers->find($site, $what)?->label,
            default => $this->recipes->find($site, $what)?->name,
        };
        if ($name === null) {
            throw $this->createNotFoundException();
        }
        \assert($kind === 'lot' || $kind === 'thermometer' || $kind === 'recipe', 'the route allows no other');
        $since =
            LocalDate::ofIso($request->query->getString('since'))
            ?? LocalDate::ofInstant($this->now->instant(), $site->zone())->plusDays(-self::RECALL_DAYS);
        $this->projections->bringUpToDate($site);

        return $this->render('reporting/search/recall.html.twig', [
            'kind' => $kind,
            'what' => $what,
            'name' => $name,
            'site' => $site,
            'found' => $this->finder->recall(
                $site,
                $kind,
                $kind === 'lot' ? $what : $name,
                $since->startIn($site->zone()),
            ),
            'lot' => $lot,
            'taken' => $lot === null ? [] : $this->lots->batchesOf($lot->lot),
            'since' => $since,
            'pending' => $this->projections->pending($site),
        ]);
    }
}
