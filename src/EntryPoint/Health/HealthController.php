<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Health;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;
use Verjuicer\App\Platform\Machine\Version;

/** For monitoring the machine: no part of any record is shown. */
final readonly class HealthController
{
    public function __construct(
        private Health $health,
        private RequestCount $requests,
        private Version $version,
    ) {
    }

    /** Whether the application answers at all. */
    #[Route('/healthz', name: 'healthz', methods: ['GET'])]
    public function alive(): Response
    {
        return self::plain("ok\n");
    }

    /** Whether it can keep an entry: the database answers and has the shape this version needs. */
    #[Route('/readyz', name: 'readyz', methods: ['GET'])]
    public function ready(): Response
    {
        return self::told('ready', $this->health->readiness());
    }

    /** Whether backups are made and can be restored, and the chain was walked and holds; where timers see to that. */
    #[Route('/keptz', name: 'keptz', methods: ['GET'])]
    public function kept(): Response
    {
        return self::told('kept', $this->health->safety());
    }

    /** Figures as Prometheus reads them, on this machine only: a proxy does not pass it on. */
    #[Route('/metrics', name: 'metrics', methods: ['GET'])]
    public function metrics(Request $request): Response
    {
        if (!\in_array($request->server->get('REMOTE_ADDR'), ['127.0.0.1', '::1'], true)
            || $request->headers->has('X-Forwarded-For')) {
            throw new NotFoundHttpException();
        }
        $lines = \sprintf("# TYPE verjuicer_info gauge\nverjuicer_info{version=\"%s\"} 1\n", $this->version->words());
        $lines .= "# HELP verjuicer_requests_total Requests answered since the server began.\n"
            ."# TYPE verjuicer_requests_total counter\n";
        foreach ($this->requests->all() as $digit => $count) {
            $lines .= "verjuicer_requests_total{status=\"{$digit}xx\"} $count\n";
        }
        foreach ($this->health->figures() as $name => [$help, $value]) {
            $lines .= "# HELP verjuicer_$name $help\n# TYPE verjuicer_$name gauge\nverjuicer_$name $value\n";
        }

        return self::plain($lines, 'text/plain; version=0.0.4; charset=utf-8');
    }

    /** @param array<string, bool> $state */
    private static function told(string $what, array $state): Response
    {
        $isGood = !\in_array(false, $state, true);

        return new JsonResponse(
            [$what => $isGood] + $state,
            $isGood ? Response::HTTP_OK : Response::HTTP_SERVICE_UNAVAILABLE,
            ['Cache-Control' => 'no-store'],
        );
    }

    private static function plain(string $text, string $type = 'text/plain; charset=utf-8'): Response
    {
        return new Response($text, headers: ['Content-Type' => $type, 'Cache-Control' => 'no-store']);
    }
}
