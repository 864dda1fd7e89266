<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Entry;

use Verjuicer\Core\Food\Oven;
use Verjuicer\Core\Food\ReheatPurpose;
use Verjuicer\Core\Food\TimePlan;
use Verjuicer\Core\Measure\MalformedTemperature;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;

/**
 * Reads what was typed into the log line: "7 203", "7.2 flat 198", "7 95c -10", "7 wrap paper", "7 cook 250 convection".
 * First the tag, with a piece after a point; then a temperature, with a spot, or a verb with its words; last "-10" for ten minutes ago.
 */
final readonly class EntryLine
{
    /** Minutes that can be typed as "ago"; longer ago is entered with its full time. */
    private const MOST_MINUTES_AGO = 720;

    private const PLANS = ['hot' => TimePlan::Hot4h, 'cold' => TimePlan::Cold4h, 'cold6' => TimePlan::Cold6h];

    private function __construct(public int $tag, public Entry $entry)
    {
    }

    /**
     * @param list<string> $thermometers the labels of the site
     *
     * @throws EntryProblem if no tag and no temperature or verb can be made out
     */
    public static function parse(string $line, TemperatureUnit $unit, array $thermometers): self
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
        $minutesAgo = self::takeMinutesAgo($words);
        $thermometer = self::takeThermometer($words, $thermometers);
        $verb = $words === [] ? null : Verb::tryFrom(strtolower($words[0]));
        $entry = $verb === null
            ? self::reading($words, $unit, $piece, $thermometer, $minutesAgo)
            : self::step($verb, \array_slice($words, 1), $unit, $piece, $minutesAgo);

        return new self((int) $part[1], $entry);
    }

    /** @param list<string> $words */
    private static function reading(array $words, TemperatureUnit $unit, ?int $piece, ?string $thermometer, int $minutesAgo): Entry
    {
        $temperature = null;
        $spot = [];
        foreach ($words as $word) {
            if ($temperature === null && preg_match('/^[-−+]?\d/u', $word) === 1) {
                $temperature = self::temperature($word, $unit);
            } elseif ($temperature !== null && preg_match('/^°?[fFcC]$/u', $word) === 1) {
                $temperature = self::temperature($temperature->number().$word, $unit);
            } elseif (preg_match('/^\pL[\pL\pN\'-]*$/u', $word) === 1) {
                $spot[] = mb_strtolower($word);
            } else {
                throw EntryProblem::notUnderstood($word);
            }
        }
        if ($temperature === null) {
            throw EntryProblem::noTemperature();
        }

        return Entry::reading($temperature, $piece ?? 1, $spot === [] ? null : implode(' ', $spot), $thermometer, $minutesAgo);
    }

    /** @param list<string> $words */
    private static function step(Verb $verb, array $words, TemperatureUnit $unit, ?int $piece, int $minutesAgo): Entry
    {
        $members = $verb === Verb::Reheat ? ['for' => ReheatPurpose::HotHold->value] : [];
        $left = [];
        foreach ($words as $word) {
            $number = $verb->numberGoesTo();
            $lower = mb_strtolower($word);
            if ($number !== null && !isset($members[$number]) && preg_match('/^[-−+]?\d/u', $word) === 1) {
                $temperature = self::temperature($word, $unit);
                $members[$number] = (object) [$temperature->unit->member() => $temperature->tenths / 10];
            } elseif ($verb === Verb::Cook && Oven::tryFrom($lower) !== null) {
                $members['oven'] = $lower;
            } elseif ($verb === Verb::Reheat && ReheatPurpose::tryFrom($lower) !== null) {
                $members['for'] = $lower;
            } elseif ($verb === Verb::Clock && isset(self::PLANS[$lower])) {
                $members['plan'] = self::PLANS[$lower]->value;
            } else {
                $left[] = $word;
            }
        }
        $reason = null;
        $text = $left === [] ? null : implode(' ', $left);
        if ($text !== null) {
            $member = $verb->wordsGoTo() ?? throw EntryProblem::notUnderstood($left[0]);
            if ($member === 'reason') {
                $reason = $text;
            } else {
                $members[$member] = $text;
            }
        }
        if ($piece !== null) {
            $verb === Verb::Moved || throw EntryProblem::noPieceYet($piece);
            $members['piece'] = $piece;
        }

        return Entry::of($verb->type(), (object) $members, $minutesAgo, $reason);
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
     * Takes "-10" from the end: ten minutes ago. Where no other number was typed it is a temperature below zero.
     *
     * @param list<string> $words
     */
    private static function takeMinutesAgo(array &$words): int
    {
        $last = $words[\count($words) - 1] ?? '';
        if (preg_match('/^[-−](\d{1,4})$/u', $last, $part) !== 1) {
            return 0;
        }
        $others = \array_slice($words, 0, -1);
        $isVerb = $others !== [] && Verb::tryFrom(strtolower($others[0])) !== null;
        if (!$isVerb && preg_grep('/^[-−+]?\d/u', $others) === []) {
            return 0;
        }
        if ((int) $part[1] > self::MOST_MINUTES_AGO) {
            throw EntryProblem::tooLongAgo();
        }
        $words = $others;

        return (int) $part[1];
    }

    /**
     * @param list<string> $words
     * @param list<string> $thermometers
     */
    private static function takeThermometer(array &$words, array $thermometers): ?string
    {
        foreach ($words as $index => $word) {
            foreach ($thermometers as $label) {
                if (strcasecmp($word, $label) === 0) {
                    array_splice($words, $index, 1);

                    return $label;
                }
            }
        }

        return null;
    }
}
