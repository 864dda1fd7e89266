<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Access;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Security\Core\Exception\AuthenticationException;
use Symfony\Component\Security\Core\Exception\BadCredentialsException;
use Symfony\Component\Security\Http\AccessToken\AccessTokenHandlerInterface;
use Symfony\Component\Security\Http\Authenticator\Passport\Badge\UserBadge;
use Symfony\Component\Security\Http\EntryPoint\AuthenticationEntryPointInterface;

/** Lets in by a bearer token (RFC 6750), and says how where there is none. */
final readonly class TokenHandler implements AccessTokenHandlerInterface, AuthenticationEntryPointInterface
{
    public function __construct(private AccessTokens $tokens)
    {
    }

    public function getUserBadgeFrom(#[\SensitiveParameter] string $accessToken): UserBadge
    {
        $token = $this->tokens->ofSecret($accessToken) ?? throw new BadCredentialsException();

        return new UserBadge($token->id, static fn (): TokenHolder => new TokenHolder($token));
    }

    public function start(Request $request, ?AuthenticationException $authException = null): Response
    {
        return new JsonResponse(
            ['errors' => [['pointer' => '', 'message' => 'Send "Authorization: Bearer" and a token of this site.']]],
            Response::HTTP_UNAUTHORIZED,
            ['WWW-Authenticate' => 'Bearer'],
        );
    }
}
