<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Entry;

use Verjuicer\Core\Record\EventType;

/** The words of the log line that record something other than a temperature. */
enum Verb: string
{
    case Prep = 'prep';
    case Cook = 'cook';
    case Off = 'off';
    case Rest = 'rest';
    case Hold = 'hold';
    case Cool = 'cool';
    case Cold = 'cold';
    case Freeze = 'freeze';
    case Thaw = 'thaw';
    case Reheat = 'reheat';
    case Clock = 'clock';
    case Serve = 'serve';
    case Discard = 'discard';
    case Inject = 'inject';
    case Blade = 'blade';
    case Season = 'season';
    case Trim = 'trim';
    case Wrap = 'wrap';
    case Spritz = 'spritz';
    case Sauce = 'sauce';
    case Pit = 'pit';
    case Set = 'set';
    case Moved = 'moved';
    case Pack = 'pack';
    case Note = 'note';

    public function type(): EventType
    {
        return match ($this) {
            self::Prep => EventType::Prep,
            self::Cook => EventType::Cook,
            self::Off, self::Rest => EventType::Rest,
            self::Hold => EventType::HotHold,
            self::Cool => EventType::Cool,
            self::Cold => EventType::ColdHold,
            self::Freeze => EventType::Freeze,
            self::Thaw => EventType::Thaw,
            self::Reheat => EventType::Reheat,
            self::Clock => EventType::TimeControl,
            self::Serve => EventType::Serve,
            self::Discard => EventType::Discard,
            self::Inject => EventType::Inject,
            self::Blade => EventType::Tenderize,
            self::Season => EventType::Season,
            self::Trim => EventType::Trim,
            self::Wrap => EventType::Wrap,
            self::Spritz => EventType::Spritz,
            self::Sauce => EventType::Sauce,
            self::Pit => EventType::PitReading,
            self::Set => EventType::PitSet,
            self::Moved => EventType::ProbeMoved,
            self::Pack => EventType::Pack,
            self::Note => EventType::Note,
        };
    }

    /** The member of the event that takes the words after the verb, if one does. */
    public function wordsGoTo(): ?string
    {
        return match ($this) {
            self::Off, self::Rest, self::Cool, self::Pack => 'method',
            self::Hold, self::Cold => 'place',
            self::Discard => 'reason',
            self::Wrap => 'with',
            self::Moved => 'spot',
            self::Note => 'text',
            self::Cook => 'pit',
            self::Season, self::Inject, self::Spritz, self::Sauce => 'recipe',
            default => null,
        };
    }

    /** The member that takes the number after the verb, if one does. */
    public function numberGoesTo(): ?string
    {
        return match ($this) {
            self::Cook, self::Set => 'set',
            self::Pit => 'temp',
            default => null,
        };
    }
}
