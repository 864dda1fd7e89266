<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use Symfony\Component\Security\Core\Exception\AuthenticationException;
use Symfony\Component\Security\Http\EntryPoint\AuthenticationEntryPointInterface;
use Symfony\Component\Security\Http\Util\TargetPathTrait;

/** Sends a logged-out person to the login; their input waits for them behind it. */
final readonly class SessionEnded implements AuthenticationEntryPointInterface
{
    use TargetPathTrait;

    public const SENT = 'sent_after_the_end';
    private const MOST_BYTES = 20_000;

    public function __construct(private UrlGeneratorInterface $urls)
    {
    }

    public function start(Request $request, ?AuthenticationException $authException = null): Response
    {
        if ($request->headers->get('Sec-Fetch-Dest') === 'empty' && $request->hasSession()) {
            // A script asked for a part of a page: no place to return to after the login.
            $this->removeTargetPath($request->getSession(), 'main');
        }
        if ($request->isMethod('POST') && $request->hasSession()) {
            $fields = array_filter($request->request->all(), \is_string(...));
            if ($fields !== [] && \strlen(implode('', $fields)) <= self::MOST_BYTES) {
                $session = $request->getSession();
                $session->set(self::SENT, ['to' => $request->getPathInfo(), 'fields' => $fields]);
                $this->saveTargetPath($session, 'main', $this->urls->generate('resume'));
            }
        }

        return new RedirectResponse($this->urls->generate('login'));
    }
}
