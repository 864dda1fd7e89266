<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Log\LastReadings;
use Verjuicer\App\Site\Site\EventTimeParser;
use Verjuicer\App\Site\Site\InvalidEventTime;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Kind;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Event\Kinds\Unwrap;
use Verjuicer\Core\Event\Kinds\Wrap;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Food\NoteStep;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\MalformedTemperature;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;

/**
 * Reads what was typed into the log line: "7 203", "7.2 flat 198", "7 95c -10", "7 wrap paper", "7 cook 250 convection
 * 14:05". First the tag, with a piece after a point; then a temperature, with a spot, or a verb with its words; last
 * when it was, if not now.
 */
final readonly class EntryLine
{
    public function __construct(
        private LineWords $words,
        private LineAmounts $amounts,
        private ReminderLine $reminder,
        private Thermometers $thermometers,
        private LastReadings $lastReadings,
        private EventTimeParser $happened,
    ) {
    }

    /**
     * @param Uuid $id of the entry it would be
     *
     * @throws EntryProblem if no tag and no temperature or verb can be made out
     * @throws InvalidEventTime if it ends with a time that cannot be
     */
    public function parse(string $line, Site $site, Uuid $id): TaggedDraft
    {
        $words = preg_split('/\s+/u', trim($line), -1, \PREG_SPLIT_NO_EMPTY);
        if ($words === false || $words === []) {
            throw EntryProblem::empty();
        }
        if (preg_match('/^(\d{1,3})(?:[.,](\d{1,3}))?$/', $words[0], $part) !== 1 || (int) $part[1] < 1) {
            throw EntryProblem::noTag($words[0]);
        }
        $piece = isset($part[2]) ? max(1, (int) $part[2]) : null;
        $words = \array_slice($words, 1);
        $why = $this->takeAfter('because', $words, 1);
        $verb = $words === [] ? null : $this->words->verb($words[0]);
        $at = $this->takeTime($words, $verb !== null, $site) ?? $this->happened->read($this->happened->now(), $site);
        $draft =
            $verb === null
                ? $this->reading($words, (int) $part[1], $site, $piece, $id, $at)
                : $this->step($verb, \array_slice($words, 1), $site, $piece, $id, $at);

        return new TaggedDraft((int) $part[1], $why === null ? $draft : $draft->because($why));
    }

    /** @param list<string> $words */
    private function reading(array $words, int $tag, Site $site, ?int $piece, Uuid $id, Instant $at): Draft
    {
        $kind = EventKinds::of(Reading::class);
        $thermometer = $this->takeThermometer($words, $site);
        $unit = $this->lastReadings->unit($site, $tag, $thermometer);
        $place = self::placeOfTemperature($words) ?? throw $this->noTemperature($words);
        $temperature = self::temperature($words[$place], $unit);
        $feel = null;
        $spot = [];
        foreach ($words as $index => $word) {
            $choice = $this->words->choice($kind, $word);
            if ($index === $place) {
                continue;
            }
            if ($index === $place + 1 && preg_match('/^°?[fFcC]$/u', $word) === 1) {
                $temperature = self::temperature($temperature->number().$word, $unit);
            } elseif ($choice !== null) {
                $feel = $choice[1];
            } elseif (
                preg_match($spot === [] ? "/^\pL[\pL\pN'-]*$/u" : "/^(\pL[\pL\pN'-]*|\d{1,2}(-\d{1,2})?)$/u", $word)
                === 1
            ) {
                $spot[] = mb_strtolower($word);
            } else {
                throw EntryProblem::notUnderstood($word);
            }
        }
        $detail = $kind->make([
            'temp' => $temperature,
            'piece' => $piece,
            'spot' => $spot === [] ? Product::SPOT : implode(' ', $spot),
            'thermometer' => $thermometer,
            'feel' => $feel,
        ]);

        return new Draft($id, $detail, $at, isSpotOpen: $spot === [], isPieceOpen: $piece === null);
    }

    /**
     * Which word is the temperature where there are several numbers: the one that comes first of all or has its unit,
     * else the last; "bone 2 198" is 198 at the spot "bone 2".
     *
     * @param list<string> $words
     */
    private static function placeOfTemperature(array $words): ?int
    {
        $numbers = array_keys(array_filter($words, self::isNumber(...)));
        if ($numbers === [] || $numbers[0] === 0) {
            return $numbers[0] ?? null;
        }
        foreach ($numbers as $index) {
            if (
                preg_match('/[fFcC]$/', $words[$index]) === 1
                || preg_match('/^°?[fFcC]$/u', $words[$index + 1] ?? '') === 1
            ) {
                return $index;
            }
        }

        return $numbers[\count($numbers) - 1];
    }

    /** @param list<string> $words */
    private function noTemperature(array $words): EntryProblem
    {
        $slips = $words === [] ? [] : NearestWords::slips($words[0], $this->words->verbs());

        return $slips === [] ? EntryProblem::noTemperature() : EntryProblem::notUnderstood($words[0], $slips);
    }

    /**
     * @param array{Kind, LinePhrase} $verb
     * @param list<string> $words
     */
    private function step(array $verb, array $words, Site $site, ?int $piece, Uuid $id, Instant $at): Draft
    {
        [$kind, $saying] = $verb;
        if (($saying->sets['step'] ?? null) === NoteStep::Reminder->value) {
            return new Draft($id, $this->reminder->parse(implode(' ', $words), $site->unit), $at);
        }
        $isWrap = $kind->name() === EventKinds::of(Wrap::class)->name();
        if ($isWrap && $this->words->isSaid('unwrapped', $words[0] ?? '')) {
            // "wrap opened": it came out of it.
            $kind = EventKinds::of(Unwrap::class);
            [$saying, $words] = [$kind->declared->sayings[0], []];
        }
        $values = FieldWords::values($kind, $saying->sets);
        [$amounts, $words] = $this->amounts->taken($kind, $saying, $words);
        $values += $amounts;
        $left = [];
        foreach ($saying->number === null ? $words : self::withUnits($words) as $word) {
            $choice = $this->words->choice($kind, $word);
            $flag = $this->words->flag($kind, $word);
            if ($saying->number !== null && !isset($values[$saying->number]) && self::isNumber($word)) {
                $values[$saying->number] = self::temperature($word, $site->unit);
            } elseif ($choice !== null) {
                $values[$choice[0]] = $choice[1];
            } elseif ($flag !== null) {
                $values[$flag] = true;
            } else {
                $left[] = $word;
            }
        }
        $with = $saying->with === null ? null : $this->takeAfter('with', $left, 0);
        if ($saying->with !== null && $with !== null) {
            $values[$saying->with] = $with;
        }
        $text = $left === [] ? null : implode(' ', $left);
        // The words of a choice are it, and stay as they were said where the kind takes words.
        $chosen = $text === null ? null : $this->words->chosen($kind, $text);
        if ($chosen !== null) {
            $values += [$chosen[0] => $chosen[1]];
            $text = $saying->words === null ? null : $text;
        }
        if ($text !== null && $saying->words === null) {
            throw EntryProblem::notUnderstood($left[0]);
        }
        if ($text !== null && $saying->words !== null && $saying->words !== 'reason') {
            $values[$saying->words] = $this->words->usual($kind, $saying->words, $text);
        }
        if ($piece !== null) {
            $ofPiece = $kind->partsWays() ? $piece : null;
            if ($ofPiece === null) {
                $values['piece'] = isset($kind->fields['piece']) ? $piece : throw EntryProblem::noPieceYet($piece);
            }
        }
        foreach ($kind->fields as $name => $field) {
            if ($field->isRequired && !isset($values[$name])) {
                throw EntryProblem::incomplete($name);
            }
        }
        $reason = $saying->words === 'reason' ? $text : null;

        return new Draft(
            $id,
            $kind->make($values),
            $at,
            $reason,
            isSpotOpen: isset($kind->fields['spot']) && !isset($values['spot']),
            ofPiece: $ofPiece ?? null,
            isPieceOpen: $piece === null,
        );
    }

    /**
     * "158 °C" is one word, as "158c" is.
     *
     * @param list<string> $words
     *
     * @return list<string>
     */
    private static function withUnits(array $words): array
    {
        $joined = preg_replace('/(?<=^|\s)([-−+]?\d\S*) (°?[fFcC])(?=\s|$)/u', '$1$2', implode(' ', $words));

        return $words === [] || $joined === null ? $words : explode(' ', $joined);
    }

    private static function isNumber(string $word): bool
    {
        return preg_match('/^[-−+]?\d/u', $word) === 1;
    }

    private static function temperature(string $raw, TemperatureUnit $unit): Temperature
    {
        try {
            return Temperature::parse($raw, $unit);
        } catch (MalformedTemperature) {
            throw EntryProblem::notATemperature($raw);
        }
    }

    /**
     * Takes the time from the end: "-10" or "10 min ago" for ten minutes ago, "-1h30", "14:05", "yesterday 22:10".
     * Where no other number was typed "-10" is a temperature below zero.
     *
     * @param list<string> $words
     */
    private function takeTime(array &$words, bool $isVerb, Site $site): ?Instant
    {
        $isSaidAgo = $words !== [] && $this->words->isSaid('ago', $words[\count($words) - 1]);
        $all = $words;
        if ($isSaidAgo) {
            array_pop($words);
        }
        for ($count = min($isSaidAgo ? 4 : 3, \count($words)); $count > 0; --$count) {
            $others = \array_slice($words, 0, -$count);
            $given = implode(' ', \array_slice($words, -$count));
            $isAgo =
                preg_match($isSaidAgo ? '/^\d/' : '/^[-−]\d/u', $given) === 1
                && ($isVerb || preg_grep('/^[-−+]?\d/u', $others) !== []);
            if ($isAgo || str_contains($given, ':')) {
                try {
                    $at = $this->happened->read($given, $site);
                } catch (InvalidEventTime $problem) {
                    if ($problem->isUnreadable()) {
                        continue;
                    }
                    throw $problem;
                }
                $words = $others;

                return $at;
            }
        }
        $words = $all;

        return null;
    }

    /**
     * Takes what follows a word, to the end: the reason after "because", what goes on or into something else after
     * "with".
     *
     * @param list<string> $words
     */
    private function takeAfter(string $word, array &$words, int $from): ?string
    {
        for ($index = $from; $index < \count($words) - 1; ++$index) {
            if ($this->words->isSaid($word, $words[$index])) {
                $taken = implode(' ', \array_slice($words, $index + 1));
                $words = \array_slice($words, 0, $index);

                return $taken;
            }
        }

        return null;
    }

    /** @param list<string> $words */
    private function takeThermometer(array &$words, Site $site): ?string
    {
        foreach ($this->thermometers->labels($site) as $label) {
            foreach ($words as $index => $word) {
                if (strcasecmp($word, $label) === 0) {
                    array_splice($words, $index, 1);

                    return $label;
                }
            }
        }

        return null;
    }
}
