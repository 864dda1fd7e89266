<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Portion;

use Doctrine\DBAL\Connection;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\SiteBatches;
use Verjuicer\App\Ledger\Log\EventLog;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Lane\BoardLanes;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Work\Batch\BatchPage;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Record\Detail;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\EventType;

/** Puts one portion into another of its kind: only where both records are sound; the older date counts for all of it. */
final class MixController extends FormController
{
    public function __construct(
        private readonly SiteBatches $batches,
        private readonly BatchPage $page,
        private readonly BoardLanes $lanes,
        private readonly EventLog $log,
        private readonly Connection $connection,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('/batches/{id}/mix', name: 'mix', requirements: ['id' => Requirement::UUID], methods: ['POST'])]
    public function mix(string $id, Request $request): Response
    {
        $from = $this->batches->get($id);
        $input = $this->read($request, 'mix');
        $uuid = $input->id();
        $tag = $input->whole('tag', 1, 999, true);
        $into = $tag === null ? null : $this->lanes->batchByTag($from->site, $tag);
        $refusal = $into === null ? 'mix.problem.tag' : $this->refusal($from, $into);
        if (!$input->isGood() || $into === null || $refusal !== null) {
            return $this->page->respond($from, isset($input->problems['form']) ? $input->problems['form']->getMessage() : $refusal ?? 'mix.problem.tag', status: Response::HTTP_UNPROCESSABLE_ENTITY);
        }
        $by = $this->account->get();
        $now = $this->now->instant();
        $oldest = min(self::dayOne($this->page->assess($from)), self::dayOne($this->page->assess($into)));
        $rules = $this->page->assess($into)->rules;
        $useBy = gmdate('Y-m-d', 86400 * ($oldest + $rules->dateMark->days - 1));
        $this->connection->transactional(function () use ($from, $into, $by, $now, $uuid, $useBy): void {
            $this->log->append($into, $by, $now, new Event(Uuid::v5($uuid, 'into')->toRfc4122(), $now, $by->initials, EventType::Note, new Detail\Note(null), unknown: ['step' => 'mixed', 'mixed_from' => $from->code, 'use_by' => $useBy]));
            $this->log->append($from, $by, $now, new Event(Uuid::v5($uuid, 'from')->toRfc4122(), $now, $by->initials, EventType::Close, Detail\Bare::of(), unknown: ['step' => 'mixed', 'mixed_into' => $into->code]));
        });

        return $this->kept('mix.kept', 'batch', ['id' => $into->id->toRfc4122()]);
    }

    private function refusal(Batch $from, Batch $into): ?string
    {
        if ($from === $into || $from->productName !== $into->productName) {
            return 'mix.problem.another';
        }
        foreach ([$from, $into] as $batch) {
            $assessment = $this->page->assess($batch);
            $stage = $assessment->timeline->stage()?->type();
            if (!\in_array($assessment->verdict, [Verdict::Met, Verdict::Running, Verdict::Stopped], true)) {
                return 'mix.problem.unsound';
            }
            if (!\in_array($stage, [EventType::HotHold, EventType::ColdHold], true)) {
                return 'mix.problem.stage';
            }
        }

        return $this->page->assess($from)->timeline->stage()?->type() === $this->page->assess($into)->timeline->stage()?->type() ? null : 'mix.problem.stage';
    }

    /** The local date its last cook ended, in days. */
    private static function dayOne(Assessment $assessment): int
    {
        $end = $assessment->timeline->asOf;
        foreach ($assessment->timeline->stages as $stage) {
            if ($stage->type() === EventType::Cook) {
                $end = $stage->to;
            }
        }

        return LocalDate::ofInstant($end, $assessment->record->site->zone)->days;
    }
}
