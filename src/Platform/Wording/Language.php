<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

/** The languages of the interface: those with a catalogue in `translations/`. */
enum Language: string
{
    /** The cookie of a screen without a login. */
    public const COOKIE = 'language';

    case English = 'en';
    case Spanish = 'es';

    /** Its own name, the same in every language. */
    public function name(): string
    {
        return match ($this) {
            self::English => 'English',
            self::Spanish => 'Español',
        };
    }

    /** A time of another day, as it stands after "at" in a sentence: "Tue Dec 1 2:10 pm", "2:10 pm del mar 1 dic". */
    public function timeOnDay(string $time, string $day): string
    {
        return match ($this) {
            self::English => "$day $time",
            self::Spanish => "$time del $day",
        };
    }

    /** @return list<string> */
    public static function codes(): array
    {
        return array_column(self::cases(), 'value');
    }
}
