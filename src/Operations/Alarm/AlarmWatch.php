<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Symfony\Component\Translation\LocaleSwitcher;
use Verjuicer\App\Ledger\Chain\KeyLog;
use Verjuicer\App\Ledger\Chain\SealLog;
use Verjuicer\App\Ledger\Chain\SealPublisher;
use Verjuicer\App\Ledger\Chain\SiteDays;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Series\SeriesBlocks;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Wording\EveryLanguage;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Span;

/**
 * Looks at a site once: raises what is new, ends what is over, tells the next in line where nobody took it, and hands
 * on what has to be told. What it wrote down holds whatever becomes of it; whoever goes on does nothing twice.
 */
final readonly class AlarmWatch
{
    /** An alarm that is put to the test asks for a tap, and nobody else is told. */
    public const TEST = 'test:';

    public function __construct(
        private AlarmCauses $causes,
        private Alarms $alarms,
        private DutyRoster $duty,
        private AlarmMessages $sendings,
        private ClockAlert $clockAlert,
        private SeriesBlocks $blocks,
        private SealLog $seals,
        private SealPublisher $post,
        private KeyLog $keys,
        private SiteDays $days,
        private Ledger $ledger,
        private Now $now,
        private LocaleSwitcher $locale,
        private EveryLanguage $languages,
    ) {
    }

    public function look(Site $site): void
    {
        $this->tell($site);
        $this->tidy($site);
    }

    /** What cannot wait: alarms, and texts and calls to whoever is on duty. */
    public function tell(Site $site): void
    {
        $this->locale->runWithLocale($site->language->value, function () use ($site): void {
            if (!$this->clockAlert->send($site, AlarmChannel::quick())) {
                $this->raise($site);
                $this->escalate($site);
            }
        });
        $this->sendings->send($site, AlarmChannel::quick());
    }

    /** What may take long: a server of mail that hangs holds up no text. */
    public function tidy(Site $site): void
    {
        $isRefused = $this->clockAlert->send($site, AlarmChannel::slow());
        $this->sendings->send($site, AlarmChannel::slow());
        if ($isRefused) {
            return; // nothing can be recorded
        }
        $this->blocks->close($site);
        $this->closeDay($site);
        $this->seals->note($site);
        $this->locale->runWithLocale($site->language->value, fn () => $this->post->send($site));
    }

    /** A day is closed by the first write after it; where nobody records anything, by this one. */
    private function closeDay(Site $site): void
    {
        $opened = $this->days->opened($site)?->iso();
        if ($opened === null) {
            return;
        }
        if ($this->keys->of($site) === []) {
            $this->ledger->write($site, fn () => $this->keys->first($site));
        } elseif ($opened !== LocalDate::ofInstant($this->now->instant(), $site->zone())->iso()) {
            $this->ledger->write($site, static fn (): null => null);
        }
    }

    private function raise(Site $site): void
    {
        $causes = $this->causes($site);
        $open = [];
        foreach ($this->alarms->open($site) as $alarm) {
            $open[$alarm->cause] = $alarm;
        }
        $changed = [];
        foreach ($open as $key => $alarm) {
            $cause = $causes[$key] ?? null;
            if ($cause === null && !str_starts_with($key, self::TEST)) {
                $this->alarms->over($site, $alarm);
            } elseif ($cause !== null && $cause->effects !== $alarm->effects) {
                $changed[$key] = $cause;
            }
        }
        $new = array_diff_key($causes, $open);
        if ($new === [] && $changed === []) {
            return; // as at nearly every look: the other languages are not asked
        }
        $inEach = $this->languages->of(fn (): array => $this->causes($site));
        $ofOne = static fn (string $key): array => array_filter(array_map(
            static fn (array $all): ?AlarmCause => $all[$key] ?? null,
            $inEach,
        ));
        foreach ($changed as $key => $cause) {
            $this->alarms->effects($open[$key], $cause, $ofOne($key));
        }
        if ($new !== []) {
            $this->ledger->write($site, function () use ($site, $new, $ofOne): void {
                foreach ($new as $key => $cause) {
                    $this->alarms->raise($site, $cause, $ofOne($key));
                }
            });
        }
    }

    /** @return array<string, AlarmCause> by key */
    private function causes(Site $site): array
    {
        $causes = [];
        foreach ($this->causes->of($site) as $cause) {
            $causes[$cause->key] = $cause;
        }

        return $causes;
    }

    /** Tells whoever is next, of each alarm whose time for that has come; the first at once. */
    private function escalate(Site $site): void
    {
        $now = $this->now->instant();
        $due = array_filter(
            $this->alarms->open($site),
            static fn (Alarm $one): bool => $one->nextStepAt !== null && !$one->nextStepAt->isAfter($now),
        );
        if ($due === []) {
            return;
        }
        $plan = $this->duty->plan($site);
        $line = $this->duty->line($site, $now);
        $isNight = $this->duty->isNight($site, $now);
        $this->ledger->write($site, function () use ($site, $due, $plan, $line, $isNight, $now): void {
            foreach ($due as $alarm) {
                $level = $plan[$alarm->level->value];
                $channels = $isNight ? $level->night : $level->day;
                $step = self::reachable($line, $alarm->step, $channels);
                $next = null;
                if ($step !== null) {
                    $to = $line[$step];
                    foreach ($channels as $channel) {
                        if ($to->address($channel) !== '') {
                            $this->sendings->add($site, $alarm, $step, $channel, $to);
                        }
                    }
                    if ($alarm->step > 0) {
                        $this->alarms->record($site, $alarm, null, 'escalated', $to->initials);
                    }
                    $next = self::reachable($line, $step + 1, $channels);
                }
                $isMore = $next !== null && $level->minutes > 0;
                $this->alarms->step(
                    $alarm,
                    $next ?? \count($line),
                    $isMore ? $now->plus(Span::ofMinutes($level->minutes)) : null,
                );
            }
        });
    }

    /**
     * Nobody waits for one who cannot be told.
     *
     * @param list<Contact> $line
     * @param list<AlarmChannel> $channels
     *
     * @return int|null the next in line, from a place on, who has an address on one of the channels
     */
    private static function reachable(array $line, int $from, array $channels): ?int
    {
        for ($step = $from; $step < \count($line); ++$step) {
            if ($line[$step]->isReachedBy($channels)) {
                return $step;
            }
        }

        return null;
    }
}
