<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Contracts\Service\ResetInterface;
use Verjuicer\App\Platform\Wording\ClockFace;
use Verjuicer\App\Platform\Wording\LengthUnit;
use Verjuicer\App\Platform\Wording\UnitPreferences;
use Verjuicer\App\Platform\Wording\WeightUnit;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\TemperatureUnit;

/** The unit preferences of the current person's site; without one, of the site being worked for. */
final class SiteUnitPreferences implements UnitPreferences, ResetInterface
{
    private ?Site $site = null;

    public function __construct(private readonly Security $security)
    {
    }

    /** Says whose papers are made, where there is no screen. */
    public function workFor(Site $site): void
    {
        $this->site = $site;
    }

    public function unit(): TemperatureUnit
    {
        return $this->site()->unit ?? TemperatureUnit::Fahrenheit;
    }

    public function weightUnit(): WeightUnit
    {
        return $this->site()->weightUnit ?? WeightUnit::Kilograms;
    }

    public function lengthUnit(): LengthUnit
    {
        return $this->site()->lengthUnit ?? LengthUnit::Centimeters;
    }

    public function clock(): ClockFace
    {
        return $this->site()->clock ?? ClockFace::Hours24;
    }

    public function reset(): void
    {
        $this->site = null;
    }

    private function site(): ?Site
    {
        $account = $this->security->getUser();

        return $account instanceof Account ? $account->site : $this->site;
    }
}
