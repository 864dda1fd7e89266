<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Language;

/** How hard English texts are to read, and which words in them are not those of the trade. */
final readonly class Reading
{
    public const LONGEST = 20; // words of a sentence on a crew screen
    public const GRADE = ['crew' => 6.0, 'manager' => 9.0, 'paper' => 9.0];

    /** Words that were replaced: what a reader took for something else. */
    private const LEFTOVER =
        '/\bgates?\b|\bbreach|\b(?:un)?settled?\b|\bput right\b|\btaken back\b|\bstruck (?!through)'
        .'|\bcheck round\b|\bhot-hold round\b|^read at\b|\bcame (?:at|in)\b|\bby the clock\b'
        .'|\bcold limit\b|\bhot limit\b|\bits fall\b|5 at once\b|\bcome-up\b|\bhouse limit|\bown ways?\b'
        .'|\bsomebody\b|\bnobody\b|\bwhoever\b|\bthereof\b|\bas far as\b|\bdigests?\b|(?<!-)\bseals?\b|\bsealed\b'
        .'|\bwalked\b|\bstand-in\b|\bday sheet|\bown cooks\b|\bteach|\bpit-night\b|\bin the sun\b'
        .'|\bfirst hands\b|\bways out\b|\bthrown away\b|\blaw asks\b'
        .'|\brows (?:open|closed|are open|are closed)\b|^Keep$|^Kept[.!]?$|^Close$|^Close batch'
        .'|\bkeep the action\b|\bbroken\b|\brunning\b(?! water)|\bI take it\b|\btaken on\b|\banew\b'
        .'|\bbesides?\b|\breckon|\bin writing\b|\bhow deep\b|\bhow long would\b|\bhears?\b|\bheard\b'
        .'|\binto doubt\b|\bchains?\b|\bchained\b/i';

    /**
     * The school grade of Flesch and Kincaid.
     *
     * @param list<string> $sentences
     */
    public static function grade(array $sentences): float
    {
        $words = $syllables = 0;
        foreach ($sentences as $sentence) {
            foreach (self::words($sentence) as $word) {
                ++$words;
                $syllables += self::syllables($word);
            }
        }

        return $words === 0 ? 0.0 : 0.39 * ($words / \count($sentences)) + 11.8 * ($syllables / $words) - 15.59;
    }

    /** @return list<string> */
    public static function words(string $sentence): array
    {
        preg_match_all("/[\\p{L}\\p{N}][\\p{L}\\p{N}'’.-]*/u", $sentence, $found);

        return $found[0];
    }

    /** @return list<string> the words in it that were replaced */
    public static function leftover(Text $text): array
    {
        preg_match_all(self::LEFTOVER, (string) preg_replace('/\{[^{}]*\}/', '5', $text->written), $found);

        return array_values(array_unique($found[0]));
    }

    private static function syllables(string $word): int
    {
        $word = strtolower((string) preg_replace('/[^a-z]/i', '', $word));
        $stem = (string) preg_replace('/(?:(?<![aeiouyltd])es|(?<![td])ed|(?<!l)e)$/', '', $word);

        return max(1, (int) preg_match_all('/[aeiouy]+/', $stem === '' ? $word : $stem));
    }
}
