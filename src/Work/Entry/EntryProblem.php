<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Entry;

/** A line that cannot be kept as it stands; the message is a translation key that says what to do. */
final class EntryProblem extends \DomainException
{
    /** @param array<string, string> $values */
    private function __construct(public readonly string $key, public readonly array $values = [])
    {
        parent::__construct($key);
    }

    public static function empty(): self
    {
        return new self('entry.problem.empty');
    }

    public static function noTag(string $given): self
    {
        return new self('entry.problem.no_tag', ['{given}' => mb_substr($given, 0, 20)]);
    }

    public static function unknownTag(int $tag): self
    {
        return new self('entry.problem.unknown_tag', ['{tag}' => (string) $tag]);
    }

    public static function unknownPiece(int $piece, int $pieces): self
    {
        return new self('entry.problem.unknown_piece', ['{piece}' => (string) $piece, '{pieces}' => (string) $pieces]);
    }

    /** A step that is about the whole batch, written with a piece. */
    public static function noPieceYet(int $piece): self
    {
        return new self('entry.problem.no_piece_yet', ['{piece}' => (string) $piece]);
    }

    /** @param list<string> $known */
    public static function unknownSpot(string $given, array $known): self
    {
        return new self('entry.problem.unknown_spot', ['{given}' => mb_substr($given, 0, 20), '{known}' => implode(', ', array_unique($known))]);
    }

    public static function unknownThermometer(string $given): self
    {
        return new self('entry.problem.unknown_thermometer', ['{given}' => mb_substr($given, 0, 20)]);
    }

    public static function notWhole(string $given, int $most): self
    {
        return new self('entry.problem.not_whole', ['{given}' => mb_substr($given, 0, 20), '{most}' => number_format($most)]);
    }

    public static function notMinutes(string $given, int $most): self
    {
        return new self('entry.problem.not_minutes', ['{given}' => mb_substr($given, 0, 20), '{most}' => number_format($most)]);
    }

    public static function tooLong(int $most): self
    {
        return new self('entry.problem.too_long', ['{most}' => number_format($most)]);
    }

    public static function noTemperature(): self
    {
        return new self('entry.problem.no_temperature');
    }

    public static function notUnderstood(string $word): self
    {
        return new self('entry.problem.not_understood', ['{word}' => mb_substr($word, 0, 20)]);
    }

    public static function notATemperature(string $given): self
    {
        return new self('entry.problem.not_a_temperature', ['{given}' => mb_substr($given, 0, 20)]);
    }

    /** @param list<string> $members of the open format that are missing or wrong */
    public static function incomplete(array $members): self
    {
        return new self('entry.problem.incomplete.'.($members[0] ?? 'event'));
    }

    public static function unknownPit(string $name): self
    {
        return new self('entry.problem.unknown_pit', ['{given}' => mb_substr($name, 0, 20)]);
    }

    public static function unknownRecipe(string $name): self
    {
        return new self('entry.problem.unknown_recipe', ['{given}' => mb_substr($name, 0, 20)]);
    }

    public static function notAWeight(string $given): self
    {
        return new self('entry.problem.not_a_weight', ['{given}' => mb_substr($given, 0, 20)]);
    }

    public static function noAction(): self
    {
        return new self('entry.problem.no_action');
    }

    public static function noReason(): self
    {
        return new self('entry.problem.no_reason');
    }

    public static function noTime(string $given): self
    {
        return new self('entry.problem.no_time', ['{given}' => mb_substr($given, 0, 20)]);
    }

    public static function inTheFuture(): self
    {
        return new self('entry.problem.future');
    }

    public static function tooLongAgo(): self
    {
        return new self('entry.problem.too_long_ago');
    }
}
