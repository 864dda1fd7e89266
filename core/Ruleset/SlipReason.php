<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/** Why an entry may be a slip. */
enum SlipReason: string
{
    case TooCold = 'too_cold';
    case TooHot = 'too_hot';
    case Jump = 'jump';
    case OtherUnit = 'other_unit';
    /** Colder than a freezer keeps meat, and it is in none. */
    case OffFreezer = 'off_freezer';
    /** Too far from a reading just taken at another spot of the piece. */
    case FarFromOtherSpot = 'far_from_other_spot';
    /** It would have happened before anything did. */
    case BeforeItBegan = 'before_it_began';
    case AfterItEnded = 'after_it_ended';
    /** Served or thrown away while things happened to it later. */
    case EndedBeforeMore = 'ended_before_more';
    /** Received when it was cooking already. */
    case ReceivedAfterCook = 'received_after_cook';
    /** Off the heat, or held hot, and never on it. */
    case NeverOnHeat = 'never_on_heat';
    /** More than there is. */
    case TooMuch = 'too_much';
    /** Put in the cold or packed, and last read above the cold limit. */
    case WarmIntoCold = 'warm_into_cold';
    /** A reading of a time at which the food was in another stage than it is in now. */
    case OtherStage = 'other_stage';
    /** A reading of more than two hours ago. */
    case LongAgo = 'long_ago';
    /** Words say that something went into the meat, and no entry does. */
    case Pierced = 'pierced';
}
