<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\Stage;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Event\Kinds\Received;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Ruleset\CitedThreshold;

/** Cold food arrives cold, frozen food frozen; ready-to-eat food may arrive hot. */
final readonly class ReceivingCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        foreach ($case->stagesOf(Received::class) as $stage) {
            $received = $stage->event->detail;
            \assert($received instanceof Received);
            $temp = $received->temp;
            if ($received->frozen) {
                $limit = $case->limits->receivedFrozen;
                $findings->add(
                    $temp?->isAbove($limit->threshold) === true
                        ? self::finding($stage, Verdict::Broken, 'thawed', $limit, $temp)
                        : self::finding($stage, Verdict::Met, 'frozen', $limit, $temp),
                );
                continue;
            }
            $hot = $case->limits->receivedHot;
            if ($case->product->form === Form::CommercialReadyToEat && $temp?->isAtLeast($hot->threshold) === true) {
                $findings->add(self::finding($stage, Verdict::Met, 'hot', $hot, $temp));
                continue;
            }
            $cold = $case->limits->receivedCold;
            $findings->add(
                match (true) {
                    $temp === null => self::finding($stage, Verdict::NotShown, 'not_read', $cold, null),
                    $temp->isAtMost($cold->threshold) => self::finding($stage, Verdict::Met, 'met', $cold, $temp),
                    default => self::finding($stage, Verdict::Broken, 'broken', $cold, $temp),
                },
            );
        }
    }

    private static function finding(
        Stage $stage,
        Verdict $verdict,
        string $message,
        CitedThreshold $limit,
        ?Temperature $temp,
    ): Finding {
        return new Finding(
            rule: 'receiving',
            verdict: $verdict,
            citation: $limit->citation,
            message: 'receiving.'.$message,
            values: ['limit' => $limit->threshold, 'at' => $stage->from] + ($temp === null ? [] : ['temp' => $temp]),
            from: $stage->from,
            to: $stage->from,
            towards: $limit->threshold,
            evidence: [$stage->event->id],
            options: match ($verdict) {
                Verdict::Broken => ['receiving.refuse'],
                Verdict::NotShown => ['receiving.read_now'],
                default => [],
            },
        );
    }
}
