<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Page;

use Psr\Cache\CacheItemPoolInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Translation\LocaleSwitcher;
use Twig\Environment;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Wording\DualUnitDisplay;
use Verjuicer\App\Platform\Wording\UnitPreferences;

/**
 * A part of a page that is the same for all its readers. Several screens ask for it every few seconds, so it is
 * rendered once per state, and again every ten seconds, because its words tell the time. The cache has a fixed number
 * of places.
 */
final readonly class RenderedPart
{
    private const SECONDS = 10;
    private const PLACES = 256;
    private const OWN_LINE =
        '#> <(/?(?:li|ul|ol|div|section|nav|h2|details|summary|form|p|path|rect|use|g|line|circle|title|text)\b)#';

    public function __construct(
        #[Autowire(service: 'cache.parts')] private CacheItemPoolInterface $cache,
        private Environment $twig,
        private LocaleSwitcher $locale,
        private DualUnitDisplay $units,
        private UnitPreferences $habits,
        private Now $now,
    ) {
    }

    /**
     * @param list<string|int|bool> $state everything the part depends on, except time; its subject first
     * @param \Closure(): array<string, mixed> $context asked only where the part has to be rendered
     *
     * @return string HTML
     */
    public function of(string $template, array $state, \Closure $context): string
    {
        /** @var string */
        return $this->kept(
            $template,
            $state,
            fn (): string => self::squeezed($this->twig->render($template, $context())),
        );
    }

    /**
     * One space is enough where template tags leave several, and none around separate lines or drawings; a part holds
     * nothing preformatted.
     */
    private static function squeezed(string $html): string
    {
        return (string) preg_replace(['/\s{2,}/', self::OWN_LINE], [' ', '><$1'], $html);
    }

    /**
     * A part with a form: it is rendered for each reader.
     *
     * @param list<string|int|bool> $state as above
     * @param \Closure(): mixed $ask asked only where it has to be
     */
    public function data(string $name, array $state, \Closure $ask): mixed
    {
        return $this->kept($name, $state, $ask);
    }

    /**
     * @param list<string|int|bool> $state
     * @param \Closure(): mixed $make
     */
    private function kept(string $name, array $state, \Closure $make): mixed
    {
        $key = hash(
            'xxh128',
            json_encode(
                [
                    $name,
                    $state,
                    $this->locale->getLocale(),
                    $this->units->areBoth(),
                    $this->habits->weightUnit(),
                    $this->habits->clock(),
                    intdiv($this->now->instant()->epoch, self::SECONDS),
                ],
                \JSON_THROW_ON_ERROR,
            ),
        );
        // Each kind of part has places of its own: two parts of one page never take each other's.
        $item = $this->cache->getItem('part.'.crc32($name).'.'.crc32((string) ($state[0] ?? '')) % self::PLACES);
        $kept = $item->get();
        if (\is_array($kept) && ($kept[0] ?? null) === $key && \array_key_exists(1, $kept)) {
            return $kept[1];
        }
        $made = $make();
        $this->cache->save($item->set([$key, $made])->expiresAfter(2 * self::SECONDS));

        return $made;
    }
}
