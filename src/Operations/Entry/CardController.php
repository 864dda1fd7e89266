<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Verjuicer\App\Site\People\CurrentAccount;

/** The words of the log line on one sheet, to hang beside the pit. */
final class CardController extends AbstractController
{
    #[Route('/card', name: 'card', methods: ['GET'])]
    public function card(LineVerbs $verbs, CurrentAccount $account): Response
    {
        return $this->render('operations/entry/card.html.twig', [
            'verbs' => $verbs->all(),
            'meanings' => $verbs->meanings(),
            'site' => $account->get()->site,
        ]);
    }
}
