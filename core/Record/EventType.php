<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

use Verjuicer\Core\Json\Fields;

/** Every kind of event of the open format; those down to `close` begin a stage. */
enum EventType: string
{
    case Received = 'received';
    case ColdHold = 'cold_hold';
    case Freeze = 'freeze';
    case Thaw = 'thaw';
    case Prep = 'prep';
    case Cook = 'cook';
    case Rest = 'rest';
    case HotHold = 'hot_hold';
    case Cool = 'cool';
    case Reheat = 'reheat';
    case TimeControl = 'time_control';
    case Serve = 'serve';
    case Discard = 'discard';
    case Close = 'close';
    case Reading = 'reading';
    case PitReading = 'pit_reading';
    case PitSet = 'pit_set';
    case Inject = 'inject';
    case Tenderize = 'tenderize';
    case Season = 'season';
    case Trim = 'trim';
    case Wrap = 'wrap';
    case Spritz = 'spritz';
    case Sauce = 'sauce';
    case ProbeMoved = 'probe_moved';
    case Pack = 'pack';
    case Action = 'action';
    case Note = 'note';
    case Void = 'void';

    public function isStage(): bool
    {
        return match ($this) {
            self::Received, self::ColdHold, self::Freeze, self::Thaw, self::Prep, self::Cook, self::Rest, self::HotHold,
            self::Cool, self::Reheat, self::TimeControl, self::Serve, self::Discard, self::Close => true,
            default => false,
        };
    }

    /** Whether a stage of this kind ends the batch. */
    public function isEnd(): bool
    {
        return $this === self::Serve || $this === self::Discard || $this === self::Close;
    }

    /** Whether a needle or a blade carries the surface inside. */
    public function carriesSurfaceInside(): bool
    {
        return $this === self::Inject || $this === self::Tenderize;
    }

    /** Reads what an event of this kind says beyond its envelope; null where something required was wrong. */
    public function read(Fields $fields): ?Detail\Detail
    {
        return match ($this) {
            self::Received => Detail\Received::read($fields),
            self::ColdHold, self::HotHold => Detail\Held::read($fields),
            self::Cook => Detail\Cook::read($fields),
            self::Rest, self::Cool, self::Pack => Detail\ByMethod::read($fields),
            self::Reheat => Detail\Reheat::read($fields),
            self::TimeControl => Detail\TimeControl::read($fields),
            self::Reading => Detail\Reading::read($fields),
            self::PitReading => Detail\PitReading::read($fields),
            self::PitSet => Detail\PitSet::read($fields),
            self::Wrap => Detail\Wrap::read($fields),
            self::ProbeMoved => Detail\ProbeMoved::read($fields),
            self::Action => Detail\Action::read($fields),
            self::Note => Detail\Note::read($fields),
            default => Detail\Bare::of(),
        };
    }
}
