<?php

declare(strict_types=1);

namespace Verjuicer\App\Page;

use Symfony\Component\Translation\LocaleSwitcher;
use Symfony\Contracts\Cache\CacheInterface;
use Symfony\Contracts\Cache\ItemInterface;
use Twig\Environment;
use Verjuicer\App\Record\Now;

/**
 * A part of a page that looks the same to everybody who may see it: several screens ask for it every few seconds, so it is
 * rendered once for each state of what it shows, and anew every ten seconds, because its words tell the time.
 */
final readonly class RenderedPart
{
    private const SECONDS = 10;

    public function __construct(private CacheInterface $cache, private Environment $twig, private LocaleSwitcher $locale, private Now $now)
    {
    }

    /**
     * @param list<string|int|bool>            $state   all that the part depends on, time aside
     * @param \Closure(): array<string, mixed> $context asked only where the part has to be rendered
     *
     * @return string HTML
     */
    public function of(string $template, array $state, \Closure $context): string
    {
        $key = hash('xxh128', json_encode([$template, $state, $this->locale->getLocale(), intdiv($this->now->instant()->epoch, self::SECONDS)], \JSON_THROW_ON_ERROR));

        return $this->cache->get($key, function (ItemInterface $item) use ($template, $context): string {
            $item->expiresAfter(2 * self::SECONDS);

            return $this->twig->render($template, $context());
        });
    }
}
