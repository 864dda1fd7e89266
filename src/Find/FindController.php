<?php

declare(strict_types=1);

namespace Verjuicer\App\Find;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Verjuicer\App\Account\CurrentAccount;
use Verjuicer\App\Receiving\Lots;
use Verjuicer\App\Recipe\Recipes;
use Verjuicer\App\Thermometer\Thermometers;

/** One box for everything people remember; and where a lot, a thermometer's readings or a recipe went. */
final class FindController extends AbstractController
{
    public function __construct(private readonly Finder $finder, private readonly Lots $lots, private readonly Thermometers $thermometers, private readonly Recipes $recipes, private readonly CurrentAccount $account)
    {
    }

    #[Route('/find', name: 'search', methods: ['GET'])]
    public function find(Request $request): Response
    {
        $words = trim($request->query->getString('words'));
        $site = $this->account->get()->site;

        return $this->render('find/find.html.twig', [
            'words' => $words,
            'batches' => $words === '' ? [] : $this->finder->batches($site, $words),
            'lots' => $words === '' ? [] : $this->finder->lots($site, $words),
            'thermometers' => $this->thermometers->of($site),
            'recipes' => $this->recipes->of($site),
        ]);
    }

    #[Route('/recall/{kind}/{what}', name: 'recall', requirements: ['kind' => 'lot|thermometer|recipe'], methods: ['GET'])]
    public function recall(string $kind, string $what): Response
    {
        $site = $this->account->get()->site;
        $name = match ($kind) {
            'lot' => $this->lots->find($site, $what)?->lot->number,
            'thermometer' => $this->thermometers->find($site, $what)?->label,
            default => $this->recipes->find($site, $what)?->name,
        };
        if ($name === null) {
            throw $this->createNotFoundException();
        }
        \assert($kind === 'lot' || $kind === 'thermometer' || $kind === 'recipe', 'the route allows no other');

        return $this->render('find/recall.html.twig', ['kind' => $kind, 'name' => $name, 'site' => $site, 'found' => $this->finder->recall($site, $kind, $kind === 'lot' ? $what : $name)]);
    }
}
