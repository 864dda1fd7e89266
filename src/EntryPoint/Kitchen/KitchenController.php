<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Kitchen;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Verjuicer\App\Site\People\CurrentAccount;

/** The doors to everything that is not the board, in the order of the work. */
final class KitchenController extends AbstractController
{
    private const DOORS = [
        'before' => ['plans', 'receiving', 'products', 'recipes', 'templates'],
        'at_pit' => ['alarms', 'pits', 'hot_round', 'thermometers', 'sensors', 'what_if', 'wall', 'card'],
        'after' => ['cooling', 'today', 'unsettled', 'labels'],
        'book' => [
            'search', 'papers', 'packets', 'trends', 'keeping', 'exchange', 'duty', 'site', 'people', 'devices',
            'sites',
        ],
    ];
    private const OF = [
        'site' => 'ROLE_MANAGER',
        'people' => 'ROLE_MANAGER',
        'devices' => 'ROLE_MANAGER',
        'sites' => 'ROLE_OWNER',
    ];

    #[Route('/kitchen', name: 'kitchen', methods: ['GET'])]
    public function kitchen(KitchenFigures $figures, CurrentAccount $account): Response
    {
        $all = $figures->of($account->get()->site);

        return $this->render('entry_point/kitchen.html.twig', [
            'groups' => array_map(
                fn (array $doors): array => array_filter(
                    $doors,
                    fn (string $door): bool => $this->isGranted(self::OF[$door] ?? 'ROLE_READER'),
                ),
                self::DOORS,
            ),
            'figures' => $all,
            'needed' => array_filter($all, static fn (KitchenFigure $one): bool => $one->needsSomebody),
        ]);
    }
}
