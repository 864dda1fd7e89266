<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Verjuicer\App\Platform\Problem\Problem;

/** An entry that cannot be kept as it stands. */
final class EntryProblem extends Problem
{
    /** The words that were not understood, as they were typed. */
    public string $given = '';

    /** @var list<string> known ones that may have been meant */
    public array $nearest = [];

    /** Whether it may be something without a recipe: its allergens are ticked once. */
    public bool $mayBeRecipe = false;

    /** Whether it may be a spot nobody has read yet: it is added on purpose. */
    public bool $mayBeSpot = false;

    public static function empty(): self
    {
        return new self('entry.problem.empty');
    }

    public static function noTag(string $given): self
    {
        return new self('entry.problem.no_tag', ['{given}' => self::quoted($given)]);
    }

    public static function unknownTag(int $tag): self
    {
        return new self('entry.problem.unknown_tag', ['{tag}' => (string) $tag]);
    }

    /** @param list<int> $held */
    public static function unknownPiece(int $piece, array $held): self
    {
        return new self(
            'entry.problem.unknown_piece',
            ['{piece}' => (string) $piece, '{held}' => implode(', ', $held)],
            'piece',
        );
    }

    /** A piece of what was pulled or chopped. */
    public static function oneMass(int $piece): self
    {
        return new self('entry.problem.one_mass', ['{piece}' => (string) $piece], 'piece');
    }

    /** A number of which nobody says of what. */
    public static function noUnit(string $given): self
    {
        return new self('entry.problem.no_unit', ['{given}' => self::quoted($given)]);
    }

    public static function noAmount(string $given): self
    {
        return new self('entry.problem.no_amount', ['{given}' => self::quoted($given)]);
    }

    public static function noReminder(): self
    {
        return new self('entry.problem.no_reminder');
    }

    public static function noTagLeft(): self
    {
        return new self('entry.problem.no_tag_left');
    }

    /** A step that is about the whole batch, written with a piece. */
    public static function noPieceYet(int $piece): self
    {
        return new self('entry.problem.no_piece_yet', ['{piece}' => (string) $piece]);
    }

    /**
     * @param list<string> $known the spots of the product and those it was read at
     * @param list<string> $nearest
     */
    public static function unknownSpot(string $given, array $known, array $nearest): self
    {
        $spots = implode(', ', array_unique($known));
        $problem = new self(
            'entry.problem.unknown_spot',
            ['{given}' => self::quoted($given), '{known}' => $spots],
            'spot',
        );
        $problem->mayBeSpot = true;

        return $problem->offering($given, $nearest);
    }

    /** @param list<string> $nearest labels */
    public static function unknownThermometer(string $given, array $nearest): self
    {
        return (new self(
            'entry.problem.unknown_thermometer',
            ['{given}' => self::quoted($given)],
            'thermometer',
        ))->offering($given, $nearest);
    }

    public static function noTemperature(): self
    {
        return new self('entry.problem.no_temperature');
    }

    /** @param list<string> $nearest */
    public static function notUnderstood(string $word, array $nearest = []): self
    {
        return (new self('entry.problem.not_understood', ['{word}' => self::quoted($word)]))->offering($word, $nearest);
    }

    public static function notATemperature(string $given): self
    {
        return new self('entry.problem.not_a_temperature', ['{given}' => self::quoted($given)]);
    }

    /** A field that a kind of event cannot do without. */
    public static function incomplete(string $field): self
    {
        return new self('entry.problem.incomplete.'.$field, field: $field);
    }

    /** @param list<string> $nearest */
    public static function unknownPit(string $name, array $nearest): self
    {
        return (new self('entry.problem.unknown_pit', ['{given}' => self::quoted($name)], 'pit'))->offering(
            $name,
            $nearest,
        );
    }

    /** @param list<string> $nearest */
    public static function unknownRecipe(string $name, array $nearest): self
    {
        $problem = new self('entry.problem.unknown_recipe', ['{given}' => self::quoted($name)], 'recipe');
        $problem->mayBeRecipe = true;

        return $problem->offering($name, $nearest);
    }

    public static function noAction(): self
    {
        return new self('entry.problem.no_action', field: 'text');
    }

    /** A reading entered long after it was taken, in seconds since 1970, and nobody says why. */
    public static function lateWithoutReason(int $at, int $now): self
    {
        $minutes = intdiv($now - $at, 60);

        return new self(
            'entry.problem.late_reason',
            ['{hours}' => (string) intdiv($minutes, 60), '{minutes}' => (string) ($minutes % 60)],
            'reason',
        );
    }

    /** @param list<string> $labels of thermometers that are held in the hand */
    public static function whichThermometer(array $labels): self
    {
        return new self('entry.problem.which_thermometer', ['{labels}' => implode(', ', $labels)], 'thermometer');
    }

    public static function noReason(): self
    {
        return new self('entry.problem.no_reason', field: 'reason');
    }

    /** @param list<string> $nearest */
    private function offering(string $given, array $nearest): self
    {
        $this->given = $given;
        $this->nearest = $nearest;

        return $this;
    }

    /** What the page sent is not what it was made to send. */
    public static function notSent(): self
    {
        return new self('entry.problem.no_id');
    }
}
