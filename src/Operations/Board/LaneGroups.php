<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Board;

use Verjuicer\App\Projection\Lane\Lane;

/**
 * Lanes as the board stacks them: the parts of one mass under what they were split off, folded; a piece with a way of
 * its own by itself.
 */
final readonly class LaneGroups
{
    /**
     * @param list<Lane> $lanes by tag
     *
     * @return list<array{lane: Lane|null, portions: list<Lane>}> without a lane, where what was divided has ended
     */
    public static function of(array $lanes): array
    {
        $portions = [];
        foreach ($lanes as $lane) {
            if ($lane->parentId !== null && !$lane->hasOwnWay) {
                $portions[$lane->parentId][] = $lane;
            }
        }
        $isShown = array_fill_keys(array_map(static fn (Lane $lane): string => $lane->batchId, $lanes), true);
        $groups = [];
        $placed = [];
        foreach ($lanes as $lane) {
            $parent = $lane->hasOwnWay ? null : $lane->parentId;
            $isUnder = $parent !== null && isset($isShown[$parent]);
            if ($isUnder || ($parent !== null && isset($placed[$parent]))) {
                continue;
            }
            if ($parent === null || \count($portions[$parent]) === 1) {
                $groups[] = ['lane' => $lane, 'portions' => $portions[$lane->batchId] ?? []];
            } else {
                $placed[$parent] = true;
                $groups[] = ['lane' => null, 'portions' => $portions[$parent]];
            }
        }

        return $groups;
    }
}
