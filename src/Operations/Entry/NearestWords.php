<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

/** Which known words are nearest to one that is not known, by the letters to change. */
final readonly class NearestWords
{
    private const MOST = 3;
    /** levenshtein() takes no longer ones well. */
    private const LONGEST = 60;

    /**
     * @param array<string> $known
     *
     * @return list<string> three at the most, the nearest first
     */
    public static function of(string $given, array $known): array
    {
        $distances = [];
        foreach ($known as $word) {
            $distances[$word] = self::distance($given, $word);
        }
        asort($distances);

        return array_map(strval(...), \array_slice(array_keys($distances), 0, self::MOST));
    }

    /**
     * Only those that a slip of the finger makes: one letter of a short word, two of a longer one.
     *
     * @param array<string> $known
     *
     * @return list<string>
     */
    public static function slips(string $given, array $known): array
    {
        $most = mb_strlen($given) > 4 ? 2 : 1;

        return array_values(
            array_filter(
                self::of($given, $known),
                static fn (string $word): bool => self::distance($given, $word) <= $most,
            ),
        );
    }

    private static function distance(string $one, string $other): int
    {
        return levenshtein(
            mb_strtolower(mb_substr($one, 0, self::LONGEST)),
            mb_strtolower(mb_substr($other, 0, self::LONGEST)),
        );
    }
}
