<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Page;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** Absolute addresses for links to share: from DEFAULT_URI, never from a request's host. */
final readonly class ConfiguredAddress
{
    public function __construct(
        private UrlGeneratorInterface $urls,
        #[Autowire(env: 'DEFAULT_URI')] private string $base,
    ) {
    }

    /** @param array<string, string> $parameters */
    public function of(string $route, array $parameters): string
    {
        return rtrim($this->base, '/').$this->urls->generate($route, $parameters);
    }
}
