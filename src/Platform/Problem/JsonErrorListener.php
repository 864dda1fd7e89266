<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Problem;

use Psr\Log\LoggerInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Event\ExceptionEvent;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;

/** Answers machines in their format: the errors of the open format, never a page. */
final readonly class JsonErrorListener
{
    public const ROOT = '/api/';
    private const RETRY_SECONDS = 3;

    public function __construct(private LoggerInterface $logger)
    {
    }

    #[AsEventListener(priority: 30)]
    public function outage(ExceptionEvent $event): void
    {
        if (self::isAsked($event) && Outage::isOne($event->getThrowable())) {
            $this->logger->error('The database does not answer.', ['exception' => $event->getThrowable()]);
            $this->answer($event, 503, 'Not now: send it again.', ['Retry-After' => (string) self::RETRY_SECONDS]);
        }
    }

    /** After the firewall had its say. */
    #[AsEventListener(priority: -10)]
    public function refused(ExceptionEvent $event): void
    {
        $problem = $event->getThrowable();
        if (!self::isAsked($event) || $event->hasResponse()) {
            return;
        }
        if ($problem instanceof HttpExceptionInterface) {
            $words = match ($problem->getStatusCode()) {
                403 => 'This token may not do that.',
                404 => 'There is nothing here of this site.',
                405 => 'Not by this method.',
                default => $problem->getMessage(),
            };
            $this->answer($event, $problem->getStatusCode(), $words, $problem->getHeaders());

            return;
        }
        $this->logger->critical('An answer to a machine failed.', ['exception' => $problem]);
        $this->answer($event, 500, 'Something went wrong on our side. Nothing of it was kept: send it again.', []);
    }

    /** @param array<mixed> $headers */
    private function answer(ExceptionEvent $event, int $status, string $words, array $headers): void
    {
        $event->setResponse(
            new JsonResponse(['errors' => [['pointer' => '', 'message' => $words]]], $status, $headers),
        );
        $event->allowCustomResponseCode();
    }

    private static function isAsked(ExceptionEvent $event): bool
    {
        return str_starts_with($event->getRequest()->getPathInfo(), self::ROOT);
    }
}
