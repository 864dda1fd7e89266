<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Offline;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Csrf\CsrfTokenManagerInterface;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Operations\Batch\NextSteps;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\Core\Event\EventKinds;

/** What a device that kept entries needs to send them: whose session it is now, and the tokens of its forms. */
final class OfflineController extends AbstractController
{
    /** The token of a form by the path it is sent to. */
    private const FORMS = [
        '^/log$' => 'log',
        '^/batches/[^/]+/step$' => 'step',
        '^/batches/[^/]+/check$' => 'check',
        '^/hot-round$' => 'hot_round',
        '^/alarms/' => 'alarm',
    ];

    /** What is sent from a page that is no step of a batch. */
    private const PAGES = ['/hot-round' => 'hothold.title', '/alarms/' => 'alarm.title', '/batches/' => 'round.title'];

    private const WORDS = ['waits', 'of', 'asks', 'change', 'drop', 'sure', 'under', 'over', 'log_out', 'as_of'];

    /** What the device says of what it keeps: asked once, and kept with it. */
    #[Route('/offline/words', name: 'offline_words', methods: ['GET'])]
    public function words(TranslatorInterface $translator): Response
    {
        $words = [];
        foreach (self::WORDS as $word) {
            $words[$word] = $translator->trans('unsent.'.$word);
        }
        foreach (EventKinds::all() as $kind) {
            $words['kinds'][$kind->name()] = $translator->trans('event.'.$kind->name().'.name');
        }
        foreach (NextSteps::allTaps() as $tap) {
            $words['taps'][$tap] = $translator->trans('tap.'.strtr($tap, ['/' => '_', '.' => '_']));
        }
        foreach (self::PAGES as $path => $key) {
            $words['pages'][$path] = $translator->trans($key);
        }

        return new JsonResponse($words, headers: ['Cache-Control' => 'private, max-age=3600']);
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('/offline/tokens', name: 'offline_tokens', methods: ['GET'])]
    public function tokens(CsrfTokenManagerInterface $tokens, CurrentAccount $account): Response
    {
        return new JsonResponse(
            [
                'account' => $account->get()->initials,
                'tokens' => array_map(
                    static fn (string $form): string => $tokens->getToken($form)->getValue(),
                    self::FORMS,
                ),
            ],
            headers: ['Cache-Control' => 'no-store, private'],
        );
    }
}
