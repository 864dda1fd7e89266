<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Record\Detail\Received;
use Verjuicer\Core\Record\EventType;

/** Cold food arrives cold, or frozen. */
final readonly class ReceivingCheck implements Check
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $cold = $case->rules->receivingCold;
        foreach ($case->stagesOf(EventType::Received) as $stage) {
            $detail = $stage->event->detail;
            \assert($detail instanceof Received);
            [$verdict, $message] = match (true) {
                $detail->frozen => [Verdict::Met, 'receiving.frozen'],
                $detail->temp === null => [Verdict::NotShown, 'receiving.not_read'],
                $detail->temp->isAtMost($cold->threshold) => [Verdict::Met, 'receiving.met'],
                default => [Verdict::Broken, 'receiving.broken'],
            };
            $findings->add(new Finding(
                'receiving',
                $verdict,
                $cold->citation,
                $message,
                ['limit' => $cold->threshold, 'at' => $stage->from] + ($detail->temp === null ? [] : ['temp' => $detail->temp]),
                from: $stage->from,
                to: $stage->from,
                evidence: [$stage->event->id],
                options: match ($verdict) {
                    Verdict::Broken => ['receiving.refuse'],
                    Verdict::NotShown => ['receiving.read_now'],
                    default => [],
                },
            ));
        }
    }
}
