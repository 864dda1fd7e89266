<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Ruleset\HouseLimits;

/** House limit: two thermometers on one spot shortly after one another read much the same. */
final readonly class ThermometerAgreementCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $house = $case->rules->house();
        foreach ($case->tracks as $track => $trace) {
            if ($trace->isOfOneThermometer()) {
                continue;
            }
            $previous = null;
            foreach ($trace->all() as $reading) {
                if (
                    $previous !== null
                    && $reading->follows()
                    && self::disagree($previous, $reading, $house)
                ) {
                    $findings->add(
                        new Finding(
                            rule: 'house.thermometers_disagree',
                            verdict: null,
                            citation: $house->agreement->citation,
                            message: 'house.thermometers_disagree',
                            values: [
                                'one' => $previous->thermometer ?? '',
                                'other' => $reading->thermometer ?? '',
                                'temp' => $previous->temp,
                                'temp_other' => $reading->temp,
                                'at' => $reading->instant(),
                            ],
                            track: $track,
                            from: $previous->instant(),
                            to: $reading->instant(),
                            evidence: [$previous->id, $reading->id],
                            options: ['thermometer.check'],
                        ),
                    );
                }
                $previous = $reading;
            }
        }
    }

    public static function disagree(TrackReading $one, TrackReading $other, HouseLimits $house): bool
    {
        return $one->thermometer !== null
            && $other->thermometer !== null
            && $one->thermometer !== $other->thermometer
            && $other->at - $one->at <= $house->agreementWithin->seconds
            && !$house->agreement->covers($one->temp, $other->temp);
    }
}
