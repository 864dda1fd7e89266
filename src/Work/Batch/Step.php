<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Batch;

use Verjuicer\Core\Record\EventType;

/** What makes sense next, by the stage a batch is in: a few, the likeliest first. */
final readonly class Step
{
    /** @return list<EventType> */
    public static function after(?EventType $stage): array
    {
        return match ($stage) {
            null, EventType::Received, EventType::Thaw => [EventType::ColdHold, EventType::Prep, EventType::Cook, EventType::Discard],
            EventType::ColdHold, EventType::Freeze => [EventType::Prep, EventType::Cook, EventType::Reheat, EventType::TimeControl, EventType::Freeze, EventType::Thaw, EventType::Pack, EventType::Serve, EventType::Discard],
            EventType::Prep => [EventType::Cook, EventType::Trim, EventType::Season, EventType::Inject, EventType::ColdHold, EventType::Discard],
            EventType::Cook => [EventType::Rest, EventType::Cook, EventType::Sauce, EventType::Spritz, EventType::PitSet, EventType::ProbeMoved, EventType::HotHold, EventType::Discard],
            EventType::Rest => [EventType::HotHold, EventType::Serve, EventType::Cool, EventType::Cook, EventType::Reheat, EventType::Discard],
            EventType::HotHold => [EventType::Serve, EventType::Cool, EventType::Reheat, EventType::TimeControl, EventType::Discard],
            EventType::Cool => [EventType::ColdHold, EventType::Reheat, EventType::Serve, EventType::Discard],
            EventType::Reheat => [EventType::HotHold, EventType::Serve, EventType::Cool, EventType::Discard],
            EventType::TimeControl => [EventType::Serve, EventType::Discard],
            EventType::Serve, EventType::Discard, EventType::Close => [EventType::Close],
            default => [],
        };
    }

    /**
     * What takes one tap and nothing else, by the stage: kind, and a member with its value.
     *
     * @return list<string> "wrap/with/paper"
     */
    public static function taps(?EventType $stage): array
    {
        return match ($stage) {
            null, EventType::Received, EventType::ColdHold, EventType::Thaw, EventType::Prep => ['inject', 'tenderize', 'tenderize/stuffed/1', 'season', 'action/finding/house.raw_leftover'],
            EventType::Cook => ['wrap/with/foil', 'wrap/with/paper', 'wrap/with/boat', 'wrap/with/pan', 'spritz', 'note/step/rotated', 'sauce', 'note/step/probe_placed', 'note/step/probe_pulled', 'action/finding/house.raw_leftover'],
            default => [],
        };
    }
}
