<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Operations\Due\Claims;
use Verjuicer\App\Platform\Page\RenderedPart;
use Verjuicer\App\Platform\Wording\FindingText;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\OpenActions;

/** What asks for a corrective action nobody has taken yet, and what the code leaves to do about it. */
final readonly class OpenActionList
{
    /** Says who decides: nothing that could have been done. */
    private const DECIDE = 'cool.decide';

    public function __construct(
        private FindingText $findings,
        private Claims $claims,
        private RenderedPart $part,
    ) {
    }

    /**
     * @param \Closure(): Assessment $judged asked only where it is not known yet
     *
     * @return list<OpenAction> worst first
     */
    public function of(Batch $batch, Lane $lane, \Closure $judged): array
    {
        /** @var list<OpenAction> */
        return $lane->actions() === []
            ? []
            : $this->part->data(
                'actions',
                [$batch->id->toRfc4122(), $lane->version],
                fn (): array => $this->ask($batch, $judged()),
            );
    }

    /** @return list<OpenAction> */
    private function ask(Batch $batch, Assessment $assessment): array
    {
        $findings = WorstFirst::of($assessment->findings);
        $claims = $this->claims->of($batch->site);
        $actions = [];
        foreach (OpenActions::of($assessment) as $rule) {
            foreach ($findings as $finding) {
                if ($finding->rule === $rule && $finding->verdict !== null) {
                    $sentences = array_combine($finding->options, $this->findings->options($finding, $assessment));
                    $actions[] = new OpenAction(
                        $rule,
                        $finding->verdict->value,
                        $this->findings->sentence($finding, $assessment),
                        $finding->citation,
                        array_values(array_diff_key($sentences, [self::DECIDE => true])),
                        $sentences[self::DECIDE] ?? null,
                        $claims[$batch->id->toRfc4122().$rule] ?? null,
                    );
                    break;
                }
            }
        }

        return $actions;
    }
}
