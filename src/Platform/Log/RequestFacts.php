<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Log;

use Monolog\Attribute\AsMonologProcessor;
use Monolog\LogRecord;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\RequestStack;
use Symfony\Component\Security\Core\Authentication\Token\Storage\TokenStorageInterface;

/** Which request a line of the log is of, by whom and on which route; secrets in addresses are not written down. */
#[AsMonologProcessor]
final readonly class RequestFacts
{
    private const SECRETS = '#/(shared|welcome)/[\w-]+#';

    public function __construct(
        private RequestStack $requests,
        #[Autowire(service: 'security.untracked_token_storage')] private TokenStorageInterface $tokens,
    ) {
    }

    public function __invoke(LogRecord $record): LogRecord
    {
        $request = $this->requests->getMainRequest();
        $context = $record->context;
        unset($context['route_parameters']);
        array_walk_recursive($context, static function (mixed &$value): void {
            $value = \is_string($value) ? preg_replace(self::SECRETS, '/$1/…', $value) : $value;
        });
        if ($request === null) {
            return $record->with(context: $context);
        }

        return $record->with(
            context: $context,
            extra: $record->extra + [
                'request' => $request->headers->get('X-Request-Id'),
                'route' => $request->attributes->get('_route'),
                'account' => $this->tokens->getToken()?->getUserIdentifier(),
            ],
        );
    }
}
