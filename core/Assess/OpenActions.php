<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess;

use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Event\Kinds\Action;

/**
 * Open corrective actions: every rule that is not met or not documented needs one after its last evidence, unless all
 * of the food was discarded later.
 */
final readonly class OpenActions
{
    /** @return list<string> rules, the worst first */
    public static function of(Assessment $assessment): array
    {
        $at = $settled = $open = [];
        foreach ($assessment->timeline->events as $order => $event) {
            $at[$event->id] = $order;
            if ($event->detail instanceof Action && $event->detail->finding !== null) {
                $settled[$event->detail->finding] = $order;
            }
        }
        $disposed = Disposal::of($assessment)->order ?? -1;
        foreach ($assessment->findings as $finding) {
            if (!$finding->isWrong() || $finding->verdict === null) {
                continue;
            }
            $evidence = array_map(static fn (string $id): int => $at[$id] ?? 0, $finding->evidence);
            if (max($settled[$finding->rule] ?? -1, $disposed) < max([0, ...$evidence])) {
                $open[$finding->rule] = $finding->verdict->worseOf($open[$finding->rule] ?? Verdict::Met);
            }
        }
        uksort(
            $open,
            static fn (string $one, string $other): int => $open[$other]->isWorseThan($open[$one])
                <=> $open[$one]->isWorseThan($open[$other]),
        );

        return array_keys($open);
    }
}
