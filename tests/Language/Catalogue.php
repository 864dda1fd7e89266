<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Language;

use Symfony\Component\Yaml\Yaml;

/** All texts of a language. */
final readonly class Catalogue
{
    private const FOLDER = __DIR__.'/../../translations/';

    /** @param array<string, Text> $texts by domain and key: "messages board.late" */
    private function __construct(public string $language, public array $texts)
    {
    }

    public static function of(string $language): self
    {
        $texts = [];
        foreach ((array) glob(self::FOLDER.'*+intl-icu.'.$language.'.yaml') as $file) {
            $domain = (string) strtok(basename((string) $file), '+');
            foreach (self::flat(Yaml::parseFile((string) $file), '') as $key => $written) {
                $texts["$domain $key"] = new Text($domain, $key, $written);
            }
        }

        return new self($language, $texts);
    }

    /** @return list<string> the languages there are, English first */
    public static function languages(): array
    {
        $languages = array_map(
            static fn (string|false $file): string => explode('.', basename((string) $file))[1],
            (array) glob(self::FOLDER.'messages+intl-icu.*.yaml'),
        );
        $place = static fn (string $language): array => [$language !== 'en', $language];
        usort($languages, static fn (string $one, string $other): int => $place($one) <=> $place($other));

        return $languages;
    }

    /** @return array<string, string> */
    private static function flat(mixed $tree, string $before): array
    {
        $flat = [];
        foreach (\is_array($tree) ? $tree : [] as $name => $branch) {
            $flat += \is_array($branch)
                ? self::flat($branch, $before.$name.'.')
                : [$before.$name => \is_scalar($branch) ? (string) $branch : ''];
        }

        return $flat;
    }
}
