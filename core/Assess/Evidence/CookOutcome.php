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
use Verjuicer\Core\Ruleset\CookingRules;
use Verjuicer\Core\Ruleset\CoolingRules;

/** The result of one cook by its readings, for each track that counts and for unread pieces. */
final readonly class CookOutcome
{
    /**
     * @param non-empty-list<Finding> $findings
     * @param list<Countdown> $countdowns
     */
    private function __construct(
        public CookWindow $window,
        public Verdict $verdict,
        public array $findings,
        public array $countdowns,
    ) {
    }

    public static function of(CaseFile $case, CookWindow $window): self
    {
        $findings = $countdowns = $pieces = [];
        foreach (self::tracks($case, $window) as $track) {
            $pieces[$track->piece()] = $track->piece();
            if ($track->reached !== null) {
                $findings[] = self::met($window, $track);
                continue;
            }
            [$finding, $countdown] = self::notReached($case, $window, $track);
            $findings[] = $finding;
            if ($countdown !== null) {
                $countdowns[] = $countdown;
            }
        }
        if ($findings === [] || \count($pieces) < $case->product->held()) {
            $findings[] = self::unread($case, $window, array_values($pieces));
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

    /**
     * @return list<TrackInCook> tracks that count: not one read raw and then abandoned, if its piece was read warm
     *     elsewhere since
     */
    private static function tracks(CaseFile $case, CookWindow $window): array
    {
        $rules = $case->rule(CookingRules::class);
        $tracks = [];
        foreach ($case->readingsIn($window->stretch)->byTrack() as $name => $trace) {
            $track = TrackInCook::of($name, $trace, $window, $rules, self::movesFrom($case, $window, $name));
            if ($track !== null) {
                $tracks[] = $track;
            }
        }
        $middle = $case->rule(CoolingRules::class)->middle->threshold;
        $until = $window->stretch->from->plus($rules->rawUntil)->epoch;
        $counted = [];
        foreach ($tracks as $track) {
            $isElsewhere = false;
            if ($track->isRaw($middle, $until)) {
                foreach ($tracks as $other) {
                    $isElsewhere =
                        $isElsewhere
                        || ($other !== $track
                            && $other->piece() === $track->piece()
                            && $other->isWarmAfter($track->last(), $middle));
                }
            }
            if (!$isElsewhere) {
                $counted[] = $track;
            }
        }

        return $counted;
    }

    /**
     * @return list<string> keys of what can still be done off the heat: undercooked by intent, it is served with the
     *     advisory
     */
    private static function afterwards(CaseFile $case): array
    {
        return [...$case->product->advisory ? ['cook.serve_under_advisory'] : [], 'cook.back_on_heat', 'discard'];
    }

    /** @return array{Finding, Countdown|null} */
    private static function notReached(CaseFile $case, CookWindow $window, TrackInCook $track): array
    {
        $isOpen = $window->stretch->isOpen;
        $rules = $case->rule(CookingRules::class);
        $lowest = $window->openRows[0];
        $last = $track->last();
        $highest = $track->dwell->highest ?? $last;
        $values = [...self::need($window), 'highest' => $highest->temp, 'at' => $highest->instant()];
        $countdown = null;
        $looked = $last->at >= $window->offTheHeat()->epoch - $rules->lastLook->seconds;
        [$verdict, $message] = match (true) {
            $isOpen => [Verdict::Running, 'cook.running'],
            $track->dwell->wasHotEnough => [Verdict::NotShown, 'cook.time_not_shown'],
            $looked => [Verdict::Broken, 'cook.broken'],
            default => [Verdict::NotShown, 'cook.not_looked'],
        };
        $soonest = $isOpen ? $track->dwell->soonest() : null;
        $options = $isOpen ? ['cook.keep_on'] : self::afterwards($case);
        if ($isOpen && $window->isOffTheHeat()) {
            // Food off the heat cannot be kept on it: carry-over has to be shown.
            $message = $lowest->dwell->isLongerThan($rules->settled) ? 'cook.carry_over' : 'cook.carry_over_once';
            $values += ['first' => $lowest->temperature, 'wait' => $lowest->dwell];
            $options = ['cook.read_carry_over'];
        }
        if ($soonest !== null && $case->asOf->epoch - $last->at <= $rules->runGap->seconds) {
            $since = $soonest[1]->instant();
            // A reading later than the gap would begin a new run: it is due before that.
            $due = Instant::ofEpoch(min($soonest[2]->epoch, $last->at + $rules->runGap->seconds));
            $message = $due->epoch === $soonest[2]->epoch ? 'cook.dwelling' : 'cook.dwelling_gap';
            $values =
                ['temp' => $soonest[0]->temperature, 'dwell' => $soonest[0]->dwell, 'since' => $since, 'due' => $due]
                + $values;
            $countdown = new Countdown(
                'cook',
                CountdownKind::Check,
                $track->track,
                $since,
                $since,
                $due,
                $soonest[0]->temperature,
            );
        }

        return [
            new Finding(
                rule: 'cook',
                verdict: $verdict,
                citation: $window->rule->citation,
                message: $message,
                values: $values,
                track: $track->track,
                from: $window->stretch->from,
                to: $isOpen ? null : $window->stretch->to,
                limit: $lowest->dwell,
                towards: $lowest->temperature,
                evidence: array_values(array_unique([$highest->id, $last->id])),
                options: $options,
                isUnderAdvisory: $case->product->advisory && !$isOpen,
            ),
            $countdown,
        ];
    }

    private static function met(CookWindow $window, TrackInCook $track): Finding
    {
        [$row, $first, $last] = [$track->row, $track->first, $track->reached];
        \assert($row !== null && $first !== null && $last !== null, 'it reached a row');

        return new Finding(
            rule: 'cook',
            verdict: Verdict::Met,
            citation: $window->rule->citation,
            message: $row->dwell->seconds === 0 ? 'cook.met_at_once' : 'cook.met',
            values: [
                'temp' => $row->temperature,
                'dwell' => $row->dwell,
                'category' => $window->rule->category->value,
                'read' => $last->temp,
                'at' => $last->instant(),
            ],
            track: $track->track,
            from: $first->instant(),
            to: $last->instant(),
            limit: $row->dwell,
            towards: $row->temperature,
            evidence: array_values(array_unique([$first->id, $last->id])),
        );
    }

    /** @param list<int> $pieces that were read */
    private static function unread(CaseFile $case, CookWindow $window, array $pieces): Finding
    {
        $isOpen = $window->stretch->isOpen;
        $lowest = $window->openRows[0];
        $verdict = Verdict::unproven($isOpen);

        return new Finding(
            rule: 'cook',
            verdict: $verdict,
            citation: $window->rule->citation,
            message: ($pieces === [] ? 'cook.unread_' : 'cook.pieces_unread_').$verdict->value,
            values: [
                'read' => \count($pieces),
                'pieces' => $case->product->held(),
                'missing' => self::missing($pieces, $case->product->pieceNumbers, $case->product->pieces),
            ] + self::need($window),
            from: $window->stretch->from,
            to: $isOpen ? null : $window->stretch->to,
            limit: $lowest->dwell,
            towards: $lowest->temperature,
            options: $isOpen ? ['cook.read_pieces'] : self::afterwards($case),
            isUnderAdvisory: $case->product->advisory && !$isOpen,
        );
    }

    /**
     * @return array{need: string, category: string, temp: Threshold, dwell: Span, at_once: Threshold} the requirement
     *     of the open rows
     */
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
     * The pieces that were not read, however many a record claims to hold: "2, 4–7".
     *
     * @param list<int> $read
     * @param list<int>|null $numbers the pieces it holds, where it names them
     */
    private static function missing(array $read, ?array $numbers, int $pieces): string
    {
        if ($numbers !== null) {
            $missing = array_values(array_diff($numbers, $read));
            sort($missing);

            return implode(', ', $missing);
        }
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
