<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess;

use Verjuicer\Core\Event\EndsBatch;
use Verjuicer\Core\Event\Kinds\Discard;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Food\DiscardReason;
use Verjuicer\Core\Food\NoteStep;
use Verjuicer\Core\Record\Event;

/**
 * All of the food was discarded and none was eaten, which resolves every earlier finding. Donated or partly served food
 * resolves nothing: people may eat it.
 */
final readonly class Disposal
{
    private function __construct(public Event $event, public int $order)
    {
    }

    public static function of(Assessment $assessment): ?self
    {
        $disposal = null;
        foreach ($assessment->timeline->events as $order => $event) {
            $detail = $event->detail;
            if ($detail instanceof Note && $detail->step === NoteStep::ServedPart) {
                return null;
            }
            if ($detail instanceof Discard) {
                $disposal ??= $detail->why === DiscardReason::Donated ? null : new self($event, $order);
            } elseif ($detail instanceof EndsBatch && $disposal === null) {
                return null;
            }
        }

        return $assessment->timeline->end === null ? null : $disposal;
    }
}
