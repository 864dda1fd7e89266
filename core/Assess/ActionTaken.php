<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess;

use Verjuicer\Core\Event\Kinds\Action;
use Verjuicer\Core\Measure\Instant;

/** A corrective action: the rule it answers, the action, the time and the person. */
final readonly class ActionTaken
{
    /**
     * @param string $evidence how the person knows, in their own words
     * @param bool $isDisposal whether the food was discarded; the text is the reason, where one was given
     */
    public function __construct(
        public string $rule,
        public string $text,
        public Instant $at,
        public string $by,
        public string $evidence = '',
        public bool $isDisposal = false,
    ) {
    }

    /** @return list<self> by time */
    public static function of(Assessment $assessment): array
    {
        $taken = [];
        foreach ($assessment->timeline->happenings as $event) {
            $action = $event->detail;
            if ($action instanceof Action) {
                $taken[] = new self(
                    $action->finding ?? '',
                    $action->text ?? '',
                    $event->at,
                    $event->by,
                    $action->evidence ?? '',
                );
            }
        }

        return $taken;
    }

    /**
     * The answer to a rule: the corrective actions against it, and whether the food was discarded.
     *
     * @return list<self> by time
     */
    public static function about(Assessment $assessment, string $rule): array
    {
        $taken = array_values(
            array_filter(self::of($assessment), static fn (self $one): bool => $one->rule === $rule),
        );
        $disposal = Disposal::of($assessment)?->event;
        if ($disposal !== null) {
            $taken[] = new self($rule, $disposal->reason ?? '', $disposal->at, $disposal->by, isDisposal: true);
        }

        return $taken;
    }
}
