<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;

/** The clock of the machine cannot be right, so nothing is recorded by it. */
final class ClockProblem extends Problem
{
    /** @param Instant $last when the last link was recorded */
    public static function of(Site $site, Instant $last, Instant $now): self
    {
        return new self($last->isAfter($now) ? 'clock.behind' : 'clock.ahead', [
            '{now}' => self::local($site, $now),
            '{last}' => self::local($site, $last),
        ]);
    }

    /** @param Instant $was what it would say now, had nobody set it */
    public static function set(Site $site, Instant $was, Instant $now): self
    {
        return new self('clock.set', ['{now}' => self::local($site, $now), '{was}' => self::local($site, $was)]);
    }

    /** Not now: what was sent is sent again once the clock is right. */
    public function status(): int
    {
        return 503;
    }

    private static function local(Site $site, Instant $instant): string
    {
        return (new \DateTimeImmutable($instant->rfc3339()))
            ->setTimezone(new \DateTimeZone($site->timezone))
            ->format('Y-m-d H:i');
    }
}
