<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Learning;

use Verjuicer\Core\Forecast\Belief\ParameterSample;

/** The subject a finished cook or rest is learned from, and its unknowns. */
enum LearningSubject: string
{
    case Product = 'product';
    case Pit = 'pit';
    case Method = 'method';

    /** Whether own cooks make it surer, too. Of rests and coolings that was not measured: they move the middle only. */
    public function narrows(): bool
    {
        return $this !== self::Method;
    }

    /** @return list<int> */
    public function unknowns(): array
    {
        return match ($this) {
            self::Product => [
                ParameterSample::HALF,
                ParameterSample::SHAPE,
                ParameterSample::SUPPLY,
                ParameterSample::DRYING,
                ParameterSample::SHARPNESS,
            ],
            self::Pit => [ParameterSample::TRANSFER, ParameterSample::BIAS],
            self::Method => [
                ParameterSample::REST_AIR,
                ParameterSample::REST_TRANSFER,
                ParameterSample::EXCESS,
                ParameterSample::BELOW,
                ParameterSample::REST_WETNESS,
            ],
        };
    }
}
