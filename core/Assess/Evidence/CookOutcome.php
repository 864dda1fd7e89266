<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Threshold;

/** What the readings show of one cook: for each track that counts, and for pieces that were not read. */
final readonly class CookOutcome
{
    /**
     * @param non-empty-list<Finding> $findings
     * @param list<Countdown>         $countdowns
     */
    private function __construct(public CookWindow $window, public Verdict $verdict, public array $findings, public array $countdowns)
    {
    }

    public static function of(CaseFile $case, CookWindow $window): self
    {
        $findings = [];
        $countdowns = [];
        $pieces = [];
        foreach ($case->readingsIn($window->stretch)->byTrack() as $track => $trace) {
            $walk = self::walk($case, $window, $track, $trace);
            if ($walk === null) {
                continue;
            }
            [$pieces[], $findings[], $countdown] = $walk;
            if ($countdown !== null) {
                $countdowns[] = $countdown;
            }
        }
        $pieces = array_values(array_unique($pieces));
        if ($findings === [] || \count($pieces) < $case->product->pieces) {
            $findings[] = self::unread($case, $window, $pieces);
        }
        $verdict = Verdict::Met;
        foreach ($findings as $finding) {
            $verdict = $verdict->worseOf($finding->verdict ?? Verdict::NotShown);
        }

        return new self($window, $verdict, $findings, $countdowns);
    }

    /** Whether the record shows that food cooked here may be held at the roast limit, injection aside. */
    public function earnsRoastLimit(): bool
    {
        return $this->window->lowRows === LowRows::Open && $this->verdict === Verdict::Met;
    }

    /** @return array{int, Finding, Countdown|null}|null the piece, what its track shows; null where no reading of it is left to count */
    private static function walk(CaseFile $case, CookWindow $window, string $track, Trace $trace): ?array
    {
        $moves = self::movesFrom($case, $window, $track);
        $dwell = new Dwell($window->openRows, $case->rules->monitoring);
        $last = null;
        foreach ($trace->readings as $reading) {
            if ($moves !== [] && $moves[0] < $reading->order) {
                // The probe left this spot before anything was reached here: what it read so far may not have been the coldest place.
                while ($moves !== [] && $moves[0] < $reading->order) {
                    array_shift($moves);
                }
                $dwell = new Dwell($window->openRows, $case->rules->monitoring);
            }
            $reached = $dwell->see($reading);
            if ($reached !== null) {
                return [$reading->piece, self::met($window, $track, $reached[0]->temperature, $reached[0]->dwell, $reached[1], $reading), null];
            }
            $last = $reading;
        }
        if ($dwell->highest === null || $last === null || $moves !== []) {
            return null;
        }

        return [$last->piece, ...self::notReached($case, $window, $track, $dwell, $dwell->highest, $last)];
    }

    /** @return array{Finding, Countdown|null} */
    private static function notReached(CaseFile $case, CookWindow $window, string $track, Dwell $dwell, Reading $highest, Reading $last): array
    {
        $isOpen = $window->stretch->isOpen;
        $lowest = $window->openRows[0];
        $values = [
            ...self::need($window),
            'highest' => $highest->temp,
            'at' => Instant::ofEpoch($highest->at),
        ];
        $countdown = null;
        if ($isOpen) {
            $verdict = Verdict::Running;
            $message = 'cook.running';
            $soonest = $dwell->soonest();
            $gap = $case->rules->monitoring->cookingRunGap->span;
            if ($soonest !== null && $case->asOf->epoch - $last->at <= $gap->seconds) {
                $since = Instant::ofEpoch($soonest[1]->at);
                // A reading later than the gap would begin a new run: it is due before that.
                $due = Instant::ofEpoch(min($soonest[2]->epoch, $last->at + $gap->seconds));
                $message = $due->epoch === $soonest[2]->epoch ? 'cook.dwelling' : 'cook.dwelling_gap';
                $values = ['temp' => $soonest[0]->temperature, 'dwell' => $soonest[0]->dwell, 'since' => $since, 'due' => $due] + $values;
                $countdown = new Countdown('cook', CountdownKind::Check, $track, $since, $since, $due, $soonest[0]->temperature);
            }
        } elseif ($dwell->wasHotEnough) {
            $verdict = Verdict::NotShown;
            $message = 'cook.time_not_shown';
        } else {
            $verdict = Verdict::Broken;
            $message = 'cook.broken';
        }

        return [new Finding(
            'cook',
            $verdict,
            $window->rule->citation,
            $message,
            $values,
            $track,
            $window->stretch->from,
            $isOpen ? null : $window->stretch->to,
            limit: $lowest->dwell,
            evidence: array_values(array_unique([$highest->id, $last->id])),
            options: $isOpen ? ['cook.keep_on'] : ['cook.back_on_heat', 'discard'],
            isUnderAdvisory: $case->product->advisory && !$isOpen,
        ), $countdown];
    }

    private static function met(CookWindow $window, string $track, Threshold $temperature, Span $dwell, Reading $first, Reading $last): Finding
    {
        return new Finding(
            'cook',
            Verdict::Met,
            $window->rule->citation,
            $dwell->seconds === 0 ? 'cook.met_at_once' : 'cook.met',
            ['temp' => $temperature, 'dwell' => $dwell, 'category' => $window->rule->category->value, 'read' => $last->temp, 'at' => Instant::ofEpoch($last->at)],
            $track,
            Instant::ofEpoch($first->at),
            Instant::ofEpoch($last->at),
            limit: $dwell,
            evidence: array_values(array_unique([$first->id, $last->id])),
        );
    }

    /** @param list<int> $pieces that were read */
    private static function unread(CaseFile $case, CookWindow $window, array $pieces): Finding
    {
        $isOpen = $window->stretch->isOpen;
        $lowest = $window->openRows[0];

        return new Finding(
            'cook',
            Verdict::unproven($isOpen),
            $window->rule->citation,
            ($pieces === [] ? 'cook.unread_' : 'cook.pieces_unread_').Verdict::unproven($isOpen)->value,
            ['read' => \count($pieces), 'pieces' => $case->product->pieces, 'missing' => self::missing($pieces, $case->product->pieces)] + self::need($window),
            null,
            $window->stretch->from,
            $isOpen ? null : $window->stretch->to,
            limit: $lowest->dwell,
            options: $isOpen ? ['cook.read_pieces'] : ['cook.back_on_heat', 'discard'],
            isUnderAdvisory: $case->product->advisory && !$isOpen,
        );
    }

    /** @return array{need: string, category: string, temp: Threshold, dwell: Span, at_once: Threshold} what the open rows ask for */
    private static function need(CookWindow $window): array
    {
        $lowest = $window->openRows[0];
        $hottest = $window->openRows[\count($window->openRows) - 1];

        return [
            'need' => match (true) {
                $lowest->dwell->seconds === 0 => 'at_once',
                $hottest === $lowest => 'dwell',
                default => 'either',
            },
            'category' => $window->rule->category->value,
            'temp' => $lowest->temperature,
            'dwell' => $lowest->dwell,
            'at_once' => $hottest->temperature,
        ];
    }

    /** @return list<int> the places in this window at which the probe left the track, in order */
    private static function movesFrom(CaseFile $case, CookWindow $window, string $track): array
    {
        $moves = [];
        foreach ($case->probeMoves() as $order => $left) {
            if ($left === $track && $order >= $window->stretch->order && $order < $window->stretch->endOrder) {
                $moves[] = $order;
            }
        }

        return $moves;
    }

    /**
     * The pieces between those that were read, however many a record claims to hold: "2, 4–7".
     *
     * @param list<int> $read
     */
    private static function missing(array $read, int $pieces): string
    {
        $read = array_filter($read, static fn (int $piece): bool => $piece <= $pieces);
        sort($read);
        $ranges = [];
        $from = 1;
        foreach ([...$read, $pieces + 1] as $piece) {
            if ($piece > $from) {
                $ranges[] = $from === $piece - 1 ? (string) $from : $from.'–'.($piece - 1);
            }
            $from = $piece + 1;
        }

        return implode(', ', $ranges);
    }
}
