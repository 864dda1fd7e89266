<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Find;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Verjuicer\App\Catalogue\Recipe\Recipes;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Lane\BoardLanes;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\Core\Measure\LocalDate;

/** One box for everything people remember; and where a lot, a thermometer's readings or a recipe went. */
final class FindController extends AbstractController
{
    /** A thermometer has been in everything of years: what it read of late is what is in doubt. Another day can be asked for. */
    private const RECALL_DAYS = 30;

    public function __construct(private readonly Finder $finder, private readonly BoardLanes $lanes, private readonly Lots $lots, private readonly Thermometers $thermometers, private readonly Recipes $recipes, private readonly CurrentAccount $account, private readonly Now $now)
    {
    }

    #[Route('/find', name: 'search', methods: ['GET'])]
    public function find(Request $request): Response
    {
        $words = trim($request->query->getString('words'));
        $site = $this->account->get()->site;

        $this->lanes->bringUpToDate($site, $this->now->instant());

        return $this->render('find/find.html.twig', [
            'words' => $words,
            'batches' => $words === '' ? [] : $this->finder->batches($site, $words),
            'lots' => $words === '' ? [] : $this->finder->lots($site, $words),
            'thermometers' => $this->thermometers->of($site),
            'recipes' => $this->recipes->of($site),
            'most' => Finder::MOST,
        ]);
    }

    #[Route('/recall/{kind}/{what}', name: 'recall', requirements: ['kind' => 'lot|thermometer|recipe'], methods: ['GET'])]
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

        $since = LocalDate::ofIso($request->query->getString('since')) ?? LocalDate::ofInstant($this->now->instant(), $site->zone())->plusDays(-self::RECALL_DAYS);
        $this->lanes->bringUpToDate($site, $this->now->instant());
        $found = $this->finder->recall($site, $kind, $kind === 'lot' ? $what : $name, $since->startIn($site->zone()));

        return $this->render('find/recall.html.twig', ['kind' => $kind, 'what' => $what, 'name' => $name, 'site' => $site, 'found' => $found, 'lot' => $lot, 'since' => $since]);
    }
}
