<?php

declare(strict_types=1);

namespace Verjuicer\App\Door\Kitchen;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;

/** The doors to everything that is not the board. */
final class KitchenController extends AbstractController
{
    #[Route('/kitchen', name: 'kitchen', methods: ['GET'])]
    public function kitchen(): Response
    {
        return $this->render('door/kitchen.html.twig');
    }
}
