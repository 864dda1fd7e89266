<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Measure\Bounds;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Record\Detail\ByMethod;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Record\Extras;

/** A vacuum pack made on site without an approved plan: out of the bag within 48 h. Frozen time does not count. */
final readonly class VacuumPackCheck implements Check
{
    public const METHOD = 'vacuum';

    public function judge(CaseFile $case, Findings $findings): void
    {
        $packed = null;
        foreach ($case->timeline->events as $event) {
            if ($event->detail instanceof ByMethod && $event->type === EventType::Pack) {
                $isVacuum = $event->detail->method === self::METHOD && (new Extras($event))->text('plan_name') === null;
                $packed = $this->closed($case, $findings, $packed, $event, $isVacuum);
            } elseif ($event->type === EventType::Reheat || $event->type->isEnd()) {
                $packed = $this->closed($case, $findings, $packed, $event, false);
            }
        }
        if ($packed === null || $case->timeline->hasEnded()) {
            return;
        }
        $within = $case->rules->vacuumPack;
        $frozen = $this->frozen($case, $packed, $case->asOf->epoch);
        $held = $case->asOf->epoch - $packed->at->epoch - $frozen;
        $deadline = $packed->at->plus(Span::ofSeconds($within->span->seconds + $frozen));
        if ($held > $within->span->seconds) {
            $findings->add($this->finding($case, $packed, $held, 'house.vacuum_open'));
        }
        $findings->countdown(new Countdown('house.vacuum_pack', CountdownKind::House, null, $packed->at, $packed->at, $deadline));
        $findings->turnsAfter($deadline);
    }

    /** @return Event|null what is packed from here on */
    private function closed(CaseFile $case, Findings $findings, ?Event $packed, Event $now, bool $isVacuum): ?Event
    {
        if ($packed !== null) {
            $held = $now->at->epoch - $packed->at->epoch - $this->frozen($case, $packed, $now->at->epoch);
            if ($held > $case->rules->vacuumPack->span->seconds) {
                $findings->add($this->finding($case, $packed, $held, 'house.vacuum_late'));
            }
        }

        return $isVacuum ? $now : null;
    }

    private function finding(CaseFile $case, Event $packed, int $held, string $message): Finding
    {
        $within = $case->rules->vacuumPack;

        return new Finding(
            'house.vacuum_pack',
            null,
            $within->citation,
            $message,
            ['held' => Span::ofSeconds($held), 'within' => $within->span, 'at' => $packed->at],
            from: $packed->at,
            elapsed: Bounds::ofSeconds($held, $held),
            limit: $within->span,
            evidence: [$packed->id],
            options: ['discard'],
        );
    }

    private function frozen(CaseFile $case, Event $packed, int $until): int
    {
        $seconds = 0;
        foreach ($case->stagesOf(EventType::Freeze) as $stage) {
            $seconds += max(0, min($until, $stage->to->epoch) - max($packed->at->epoch, $stage->from->epoch));
        }

        return $seconds;
    }
}
