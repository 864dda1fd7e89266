<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Problem;

use Psr\Log\LoggerInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpFoundation\Session\Session;
use Symfony\Component\HttpFoundation\Session\Storage\MockArraySessionStorage;
use Symfony\Component\HttpKernel\Event\ExceptionEvent;
use Twig\Environment;

/**
 * The database is away, full, or locked for too long: a page that says so, holds the input, and sends it again. The
 * session stays, so no one is logged out.
 */
final readonly class Outage
{
    private const RETRY_SECONDS = 3;

    /** SQLSTATE, Appendix A of the manual of PostgreSQL: connections, resources, locks and statements cut short. */
    private const STATES = '/SQLSTATE\[(08\w{3}|53\w{3}|57P0\d|57014|55P03|25P03|40P01|58030)\]/';
    private const LOST =
        '/server closed the connection|no connection to the server|terminating connection|Connection refused/';

    /** Fields to type again instead of sending back and forth. */
    private const SECRET = '/password|^pin$|^_code$/';

    public function __construct(private Environment $twig, private LoggerInterface $logger)
    {
    }

    #[AsEventListener(priority: 20)]
    public function answer(ExceptionEvent $event): void
    {
        if (!self::isOne($event->getThrowable())) {
            return;
        }
        $this->logger->error('The database does not answer.', ['exception' => $event->getThrowable()]);
        $request = $event->getRequest();
        // Where the session lies nothing can be written now, either.
        $request->setSession(new Session(new MockArraySessionStorage()));
        $event->setResponse(
            new Response(
                $this->twig->render('platform/outage.html.twig', [
                    'locale' => $request->getLocale(),
                    'to' => $request->getRequestUri(),
                    'fields' => $request->isMethod('POST') ? self::fields($request) : null,
                    'seconds' => self::RETRY_SECONDS,
                ]),
                Response::HTTP_SERVICE_UNAVAILABLE,
                ['Retry-After' => (string) self::RETRY_SECONDS, 'Cache-Control' => 'no-store, private'],
            ),
        );
    }

    /** Whether something failed because the database could not be asked now. */
    public static function isOne(\Throwable $problem): bool
    {
        for ($one = $problem; $one !== null; $one = $one->getPrevious()) {
            $isOfDatabase = $one instanceof \PDOException || $one instanceof \Doctrine\DBAL\Exception;
            if ($isOfDatabase && preg_match(self::STATES, $one->getMessage()) === 1) {
                return true;
            }
            if ($isOfDatabase && preg_match(self::LOST, $one->getMessage()) === 1) {
                return true;
            }
        }

        return false;
    }

    /** @return array<string, string> as a form sends them, lists of one field included */
    private static function fields(Request $request): array
    {
        $fields = [];
        foreach (explode('&', http_build_query($request->request->all())) as $pair) {
            [$name, $value] = array_map(urldecode(...), explode('=', $pair, 2)) + ['', ''];
            if ($name !== '' && preg_match(self::SECRET, $name) !== 1) {
                $fields[$name] = $value;
            }
        }

        return $fields;
    }
}
