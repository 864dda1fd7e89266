<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Access;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\RequestStack;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\RateLimiter\RateLimiterFactoryInterface;
use Symfony\Component\Security\Core\Exception\AuthenticationException;
use Symfony\Component\Security\Core\Exception\BadCredentialsException;
use Symfony\Component\Security\Core\Exception\TooManyLoginAttemptsAuthenticationException;
use Symfony\Component\Security\Http\AccessToken\AccessTokenHandlerInterface;
use Symfony\Component\Security\Http\Authentication\AuthenticationFailureHandlerInterface as FailureHandler;
use Symfony\Component\Security\Http\Authenticator\Passport\Badge\UserBadge;
use Symfony\Component\Security\Http\EntryPoint\AuthenticationEntryPointInterface as EntryPoint;

/** Lets in by a bearer token (RFC 6750), and says how where there is none; wrong ones are counted by address. */
final readonly class TokenHandler implements AccessTokenHandlerInterface, EntryPoint, FailureHandler
{
    private const WORDS = 'Send "Authorization: Bearer" and a token of this site.';

    public function __construct(
        private AccessTokens $tokens,
        private RequestStack $requests,
        #[Autowire(service: 'limiter.api_token')] private RateLimiterFactoryInterface $tries,
    ) {
    }

    public function getUserBadgeFrom(#[\SensitiveParameter] string $accessToken): UserBadge
    {
        $token = $this->tokens->ofSecret($accessToken);
        if ($token === null) {
            $address = $this->requests->getCurrentRequest()?->getClientIp() ?? '';
            $try = $this->tries->create($address)->consume();
            throw $try->isAccepted()
                ? new BadCredentialsException()
                : new TooManyLoginAttemptsAuthenticationException((int) ceil(
                    max(1, $try->getRetryAfter()->getTimestamp() - time()) / 60,
                ));
        }

        return new UserBadge($token->id, static fn (): TokenHolder => new TokenHolder($token));
    }

    public function start(Request $request, ?AuthenticationException $authException = null): Response
    {
        return self::answer(Response::HTTP_UNAUTHORIZED, self::WORDS, ['WWW-Authenticate' => 'Bearer']);
    }

    public function onAuthenticationFailure(Request $request, AuthenticationException $exception): Response
    {
        return $exception instanceof TooManyLoginAttemptsAuthenticationException
            ? self::answer(
                Response::HTTP_TOO_MANY_REQUESTS,
                'Too many requests with a wrong token. Wait a minute.',
                ['Retry-After' => '60'],
            )
            : self::answer(
                Response::HTTP_UNAUTHORIZED,
                'This token is wrong or was taken back. '.self::WORDS,
                ['WWW-Authenticate' => 'Bearer error="invalid_token"'],
            );
    }

    /** @param array<string, string> $headers */
    private static function answer(int $status, string $words, array $headers): Response
    {
        return new JsonResponse(['errors' => [['pointer' => '', 'message' => $words]]], $status, $headers);
    }
}
