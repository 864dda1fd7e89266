<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Due;

/**
 * What is due as lines: what is one thing is one line, a limit and its forecast, the same clock on two pans of one cut.
 */
final readonly class DueLines
{
    private const SAME_SECONDS = 300;
    private const SHOWN = 9;

    /**
     * @param list<Due> $dues in their order
     *
     * @return list<DueLine>
     */
    public static function of(array $dues): array
    {
        $forecasts = $limits = [];
        foreach ($dues as $due) {
            $key = $due->lane->batchId.'/'.$due->rule;
            if ($due->kind === 'forecast') {
                $forecasts[$key] = $due;
            } elseif ($due->kind === 'limit' && !$due->isLate) {
                $limits[$key] = true;
            }
        }
        /** @var list<DueLine> $lines */
        $lines = [];
        foreach ($dues as $due) {
            $key = $due->lane->batchId.'/'.$due->rule;
            if ($due->kind === 'forecast' && isset($limits[$key])) {
                continue;
            }
            $same = self::same($lines, $due);
            if ($same !== null) {
                array_splice($lines, $same, 1, [$lines[$same]->with($due->lane)]);
            } else {
                $lines[] = new DueLine(
                    $due,
                    [$due->lane],
                    $due->kind === 'limit' && !$due->isLate ? $forecasts[$key] ?? null : null,
                );
            }
        }

        return $lines;
    }

    /**
     * How many stand in sight: what is late is never folded away.
     *
     * @param list<DueLine> $lines in their order, the late ones first
     */
    public static function shown(array $lines): int
    {
        return max(self::SHOWN, \count(array_filter($lines, static fn (DueLine $line): bool => $line->due->isLate)));
    }

    /** @param list<DueLine> $lines */
    private static function same(array $lines, Due $due): ?int
    {
        if ($due->lane->parentId === null || $due->lane->hasOwnWay || $due->deadline === null) {
            return null;
        }
        foreach ($lines as $index => $line) {
            $other = $line->due;
            $isSame =
                $other->lane->parentId === $due->lane->parentId
                && !$other->lane->hasOwnWay
                && $other->message === $due->message
                && $other->gate === $due->gate
                && $other->isLate === $due->isLate
                && $other->deadline !== null
                && abs($other->deadline->epoch - $due->deadline->epoch) <= self::SAME_SECONDS;
            if ($isSame) {
                return $index;
            }
        }

        return null;
    }
}
