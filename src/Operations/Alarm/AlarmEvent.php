<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Verjuicer\Core\Measure\Instant;

/** Something that became of an alarm, as it is recorded. */
final readonly class AlarmEvent
{
    /** @param 'raised'|'told'|'escalated'|'taken'|'put_off'|'settled'|'over' $type */
    public function __construct(
        public string $alarmId,
        public Instant $at,
        public Instant $recordedAt,
        public string $by,
        public string $type,
        public string $words,
    ) {
    }
}
