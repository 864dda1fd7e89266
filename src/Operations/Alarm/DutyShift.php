<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

/** When somebody is on duty: from one wall time to another, over midnight where that is earlier, on some weekdays. */
final readonly class DutyShift
{
    /**
     * @param int $weekdays a bit each, Monday the lowest: the day it begins on
     * @param int $inLine who is told first: 1
     */
    public function __construct(
        public string $id,
        public string $accountId,
        public string $name,
        public string $initials,
        public int $weekdays,
        public string $from,
        public string $to,
        public int $inLine,
    ) {
    }

    /**
     * @param int $weekday 1 for Monday to 7
     * @param string $time "02:10"
     */
    public function covers(int $weekday, string $time): bool
    {
        $isOn = fn (int $day): bool => ($this->weekdays >> ($day - 1) & 1) === 1;
        if ($this->from < $this->to) {
            return $isOn($weekday) && $time >= $this->from && $time < $this->to;
        }
        $yesterday = $weekday === 1 ? 7 : $weekday - 1;

        return ($isOn($weekday) && $time >= $this->from) || ($isOn($yesterday) && $time < $this->to);
    }

    /** @return list<int> 1 for Monday to 7 */
    public function days(): array
    {
        $isOn = fn (int $day): bool => ($this->weekdays >> ($day - 1) & 1) === 1;

        return array_values(array_filter(range(1, 7), $isOn));
    }
}
