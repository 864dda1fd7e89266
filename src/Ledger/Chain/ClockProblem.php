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

    /** @param Instant $was the time it would show now if it had not been set */
    public static function set(Site $site, Instant $was, Instant $now): self
    {
        return new self('clock.set', ['{now}' => self::local($site, $now), '{was}' => self::local($site, $was)]);
    }

    /** A temporary failure: the client sends again once the clock is right. */
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
