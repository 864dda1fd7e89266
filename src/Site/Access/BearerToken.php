<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Access;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\Security\Http\AccessToken\AccessTokenExtractorInterface;

/** The token of "Authorization: Bearer …"; the name of a scheme has no case (RFC 9110, 11.1). */
final readonly class BearerToken implements AccessTokenExtractorInterface
{
    public function extractAccessToken(Request $request): ?string
    {
        $given = $request->headers->get('Authorization') ?? '';

        return preg_match('/^Bearer\s+([A-Za-z0-9._~+\/-]+=*)$/iD', $given, $token) === 1 ? $token[1] : null;
    }
}
