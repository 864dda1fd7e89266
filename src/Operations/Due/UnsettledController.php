<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Due;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Verjuicer\App\Platform\Paging\PageKey;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Projection\Lane\LaneList;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\App\Site\People\CurrentAccount;

/** Every batch that needs a corrective action: the open ones, then those that ended, however long ago. */
final class UnsettledController extends AbstractController
{
    public function __construct(private readonly CurrentAccount $account, private readonly Lanes $lanes)
    {
    }

    #[Route('/unsettled', name: 'unsettled', methods: ['GET'])]
    public function list(Request $request): Response
    {
        $site = $this->account->get()->site;
        $after = PageKey::parse($request->query->getString('after'));

        $list = $after === null ? $this->lanes->open($site) : new LaneList([], []);
        $open = array_filter($list->lanes, static fn (Lane $lane): bool => $lane->actions() !== []);

        return $this->render('operations/due/unsettled.html.twig', [
            'site' => $site,
            'open' => array_values($open),
            'unreadable' => $list->unreadable,
            'page' => $this->lanes->unsettled($site, $after),
        ]);
    }
}
