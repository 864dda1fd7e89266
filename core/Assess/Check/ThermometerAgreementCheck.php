<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Measure\Instant;

/** House limit: two thermometers on one spot shortly after one another read much the same. */
final readonly class ThermometerAgreementCheck implements Check
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $house = $case->rules->house;
        foreach ($case->tracks as $track => $trace) {
            $previous = null;
            foreach ($trace->readings as $reading) {
                if ($previous !== null && $previous->thermometer !== null && $reading->thermometer !== null
                    && $previous->thermometer !== $reading->thermometer
                    && $reading->at - $previous->at <= $house->agreementWithin->seconds
                    && !$house->agreement->covers($previous->temp, $reading->temp)) {
                    $findings->add(new Finding(
                        'house.thermometers_disagree',
                        null,
                        $house->agreement->citation,
                        'house.thermometers_disagree',
                        ['one' => $previous->thermometer, 'other' => $reading->thermometer, 'temp' => $previous->temp, 'temp_other' => $reading->temp, 'at' => Instant::ofEpoch($reading->at)],
                        $track,
                        Instant::ofEpoch($previous->at),
                        Instant::ofEpoch($reading->at),
                        evidence: [$previous->id, $reading->id],
                        options: ['thermometer.check'],
                    ));
                }
                $previous = $reading;
            }
        }
    }
}
