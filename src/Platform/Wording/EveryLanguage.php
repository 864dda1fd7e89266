<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

use Symfony\Component\Translation\LocaleSwitcher;

/** Renders a text in the language of each of its readers. */
final readonly class EveryLanguage
{
    public function __construct(private LocaleSwitcher $locale)
    {
    }

    /**
     * @template T
     *
     * @param \Closure(): T $make
     *
     * @return array<string, T> by code of the language
     */
    public function of(\Closure $make): array
    {
        $made = [];
        foreach (Language::codes() as $code) {
            $made[$code] = $this->locale->runWithLocale($code, $make);
        }

        return $made;
    }
}
