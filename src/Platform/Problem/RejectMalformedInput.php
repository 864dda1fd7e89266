<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Problem;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\Exception\BadRequestHttpException;

/**
 * Rejects malformed text before it is read: bytes that are not UTF-8, and the character NUL, which the database cannot
 * store.
 */
final readonly class RejectMalformedInput
{
    #[AsEventListener(priority: 30)] // after the session and the route, before the firewall
    public function check(RequestEvent $event): void
    {
        if (!$event->isMainRequest()) {
            return; // the page that says so
        }
        $request = $event->getRequest();
        $path = rawurldecode($request->getPathInfo());
        foreach ([[$path], $request->query->all(), $request->request->all()] as $sent) {
            if (!self::isReadable($sent)) {
                throw new BadRequestHttpException('It holds bytes that are no text.');
            }
        }
    }

    /** @param array<mixed> $sent */
    private static function isReadable(array $sent): bool
    {
        foreach ($sent as $name => $value) {
            $isReadable = match (true) {
                \is_array($value) => self::isReadable($value),
                \is_string($value) => !str_contains($value, "\0") && mb_check_encoding($value, 'UTF-8'),
                default => true,
            };
            if (!$isReadable || (\is_string($name) && !mb_check_encoding($name, 'UTF-8'))) {
                return false;
            }
        }

        return true;
    }
}
