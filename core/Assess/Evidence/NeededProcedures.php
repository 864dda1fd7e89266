<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Cool;
use Verjuicer\Core\Event\Kinds\Pack;
use Verjuicer\Core\Event\Kinds\TimeControl;
use Verjuicer\Core\Food\ProcedureKind;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Procedure;
use Verjuicer\Core\Record\RecordedProduct;
use Verjuicer\Core\Record\RecordedSite;

/** The written procedures a batch needs by its steps, and those of the site that were in force then. */
final readonly class NeededProcedures
{
    /** The method that the application records for such a pack. */
    private const VACUUM = 'vacuum';

    /**
     * @param array<int, Event> $events that count, in their order
     *
     * @return array<string, array{kind: ProcedureKind, event: Event, procedure: Procedure|null}> by kind: the first
     *     event that no procedure was in force for, else the first of all
     */
    public static function of(RecordedSite $site, RecordedProduct $product, array $events): array
    {
        $needed = [];
        $stages = [];
        foreach ($events as $event) {
            foreach (self::kinds($product, $event, $stages) as $kind) {
                $procedure = self::inForce($site, $kind, $event);
                $known = $needed[$kind->value] ?? null;
                if ($known === null || ($known['procedure'] !== null && $procedure === null)) {
                    $needed[$kind->value] = ['kind' => $kind, 'event' => $event, 'procedure' => $procedure];
                }
            }
            if ($event->is(Cook::class, Cool::class)) {
                $stages[] = $event->detail::class;
            }
        }

        return $needed;
    }

    /**
     * @param array<int, Event> $events that count, in their order
     *
     * @return list<Procedure> the procedures in force that the batch was made by
     */
    public static function followedBy(RecordedSite $site, RecordedProduct $product, array $events): array
    {
        return array_values(array_filter(array_column(self::of($site, $product, $events), 'procedure')));
    }

    /**
     * @param list<class-string> $stages cooks and coolings before
     *
     * @return list<ProcedureKind>
     */
    private static function kinds(RecordedProduct $product, Event $event, array $stages): array
    {
        $kinds = $product->treatments === [] ? [] : [ProcedureKind::Preserving];
        if ($event->detail instanceof TimeControl) {
            $kinds[] = ProcedureKind::TimeControl;
        }
        if ($event->detail instanceof Pack && $event->detail->method === self::VACUUM) {
            $kinds[] = ProcedureKind::VacuumPack;
        }
        // Cooked a little, cooled, and cooked through later. Food that was cooked through is reheated instead.
        if ($event->detail instanceof Cook && \in_array(Cool::class, $stages, true) && $stages[0] === Cook::class) {
            $kinds[] = ProcedureKind::NonContinuous;
        }

        return $kinds;
    }

    private static function inForce(RecordedSite $site, ProcedureKind $kind, Event $event): ?Procedure
    {
        foreach ($site->procedures ?? [] as $procedure) {
            if ($procedure->kind === $kind && $procedure->isInForceAt($event->at)) {
                return $procedure;
            }
        }

        return null;
    }
}
