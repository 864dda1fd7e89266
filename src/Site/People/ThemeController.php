<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Cookie;
use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\EnumRequirement;
use Verjuicer\App\Platform\Page\BackPath;
use Verjuicer\App\Platform\Wording\DualUnitDisplay;
use Verjuicer\App\Platform\Wording\Language;

/**
 * Day, pit-night and full sun, one unit or both: a cookie of this screen, so that the page comes in the right light at
 * once.
 */
final class ThemeController extends AbstractController
{
    #[Route('/theme/{theme}', name: 'theme', requirements: ['theme' => 'day|night|sun'], methods: ['GET'])]
    public function choose(string $theme, Request $request): Response
    {
        return self::remembered('theme', $theme, $this->back($request));
    }

    #[Route('/units/{units}', name: 'units', requirements: ['units' => 'both|own'], methods: ['GET'])]
    public function units(string $units, Request $request): Response
    {
        return self::remembered(DualUnitDisplay::COOKIE, $units, $this->back($request));
    }

    #[Route(
        '/language/{language}',
        name: 'language',
        requirements: ['language' => new EnumRequirement(Language::class)],
        methods: ['GET'],
    )]
    public function language(string $language, Request $request): Response
    {
        return self::remembered(Language::COOKIE, $language, $this->back($request));
    }

    private function back(Request $request): string
    {
        return BackPath::of($request->query->getString('back')) ?? $this->generateUrl('board');
    }

    private static function remembered(string $what, string $value, string $back): Response
    {
        $response = new RedirectResponse($back);
        $response->headers->setCookie(
            Cookie::create($what, $value, '+1 year', '/', null, null, true, false, Cookie::SAMESITE_STRICT),
        );

        return $response;
    }
}
