<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Tenancy;

use Symfony\Component\Messenger\Envelope;
use Symfony\Component\Messenger\Middleware\MiddlewareInterface;
use Symfony\Component\Messenger\Middleware\StackInterface;
use Symfony\Component\Messenger\Stamp\ReceivedStamp;
use Symfony\Component\Uid\Uuid;

/** Handles each queued message in the site it was sent from. */
final readonly class SiteMessageMiddleware implements MiddlewareInterface
{
    public function __construct(private Tenant $tenant)
    {
    }

    public function handle(Envelope $envelope, StackInterface $stack): Envelope
    {
        $stamp = $envelope->last(SiteStamp::class);
        if ($stamp === null) {
            $site = $this->tenant->site();
            $envelope = $site === null ? $envelope : $envelope->with(new SiteStamp($site->toRfc4122()));
        } elseif ($envelope->last(ReceivedStamp::class) !== null) {
            return $this->tenant->within(
                Uuid::fromString($stamp->siteId),
                static fn (): Envelope => $stack->next()->handle($envelope, $stack),
            );
        }

        return $stack->next()->handle($envelope, $stack);
    }
}
