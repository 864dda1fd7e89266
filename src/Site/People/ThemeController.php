<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Cookie;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;

/** Day and pit-night: a cookie of this screen, so that the page comes in the right light at once. */
final class ThemeController extends AbstractController
{
    #[Route('/theme/{theme}', name: 'theme', requirements: ['theme' => 'day|night'], methods: ['GET'])]
    public function choose(string $theme, Request $request): Response
    {
        $back = $request->query->getString('back');
        $response = $this->redirect(preg_match('#^/(?!/)[\w/.-]*$#D', $back) === 1 ? $back : $this->generateUrl('board'));
        $response->headers->setCookie(Cookie::create('theme', $theme, '+1 year', '/', null, null, true, false, Cookie::SAMESITE_STRICT));

        return $response;
    }
}
