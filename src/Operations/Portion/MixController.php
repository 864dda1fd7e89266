<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Portion;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Batch\HeldPieces;
use Verjuicer\App\Ledger\Log\LastReadings;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Operations\Batch\BatchPage;
use Verjuicer\App\Operations\Entry\Draft;
use Verjuicer\App\Operations\Entry\RecordEntry;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Platform\Problem\RedisplaysForm;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Site\EventTimeParser;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Event\Kinds\Close;
use Verjuicer\Core\Event\Kinds\ColdHold;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\HotHold;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Food\NoteStep;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Ruleset\DateMarkRules;

/**
 * Puts one portion into another of its kind: only where both records are sound; the older date counts for all of it.
 */
final class MixController extends FormController implements RedisplaysForm
{
    public function __construct(
        private readonly Batches $batches,
        private readonly BatchPage $page,
        private readonly Assessments $assessments,
        private readonly HeldPieces $held,
        private readonly LastReadings $lastReadings,
        private readonly Ledger $ledger,
        private readonly RecordEntry $entry,
        private readonly EventTimeParser $happened,
        private readonly CurrentAccount $account,
    ) {
    }

    #[Route('/batches/{id}/mix', name: 'mix', requirements: ['id' => Requirement::UUID], methods: ['POST'])]
    public function mix(string $id, Request $request): Response
    {
        $from = $this->batches->get($id);
        $input = $this->read($request, 'mix');
        $uuid = $input->id();
        $tag = $input->whole('tag', 1, 999, true);
        $when = $input->typed->has('when') ? $input->typed->getString('when') : $this->happened->now();
        $at = $input->read('when', fn () => $this->happened->read($when, $from->site));
        if (!$input->isGood() || $tag === null || $at === null) {
            return $this->page->respond($from, $input);
        }
        $into = $this->batches->tagged($from->site, $tag) ?? throw MixProblem::noSuchTag();
        $useBy = $this->useBy($from, $into);
        $by = $this->account->get();
        $this->ledger->write($from->site, function () use ($from, $into, $by, $at, $uuid, $useBy): void {
            $pieces = $this->lastReadings->isOneMass($from) ? null : implode(', ', $this->held->numbers($from));
            $note = new Note(step: NoteStep::Mixed, mixedFrom: $from->code, useBy: $useBy, pieceNumbers: $pieces);
            $this->entry->keep($into, $by, true, new Draft(Uuid::v5($uuid, 'into'), $note, $at));
            $this->entry->keep(
                $from,
                $by,
                true,
                new Draft(Uuid::v5($uuid, 'from'), new Close(NoteStep::Mixed, $into->code), $at),
            );
        });

        return $this->kept('mix.kept', 'batch', ['id' => $into->id->toRfc4122()]);
    }

    public function showAgain(Request $request, Problem $problem): Response
    {
        $batch = $this->batches->get($request->attributes->getString('id'));

        return $this->page->respond($batch, $this->refused($request, $problem));
    }

    /**
     * The date both are to be used by: that of the older one.
     *
     * @throws MixProblem if they may not be put together
     */
    private function useBy(Batch $from, Batch $into): LocalDate
    {
        if ($from === $into || $from->productName !== $into->productName) {
            throw MixProblem::another();
        }
        $one = $this->assessments->of($from);
        $other = $this->assessments->of($into);
        foreach ([$one, $other] as $assessment) {
            if (!\in_array($assessment->verdict, [Verdict::Met, Verdict::Running, Verdict::Stopped], true)) {
                throw MixProblem::unsound();
            }
        }
        $stage = $one->timeline->stage();
        if (
            $stage?->is(HotHold::class, ColdHold::class) !== true
            || $stage->name() !== $other->timeline->stage()?->name()
        ) {
            throw MixProblem::stage();
        }
        $dayOne = self::dayOne($one);
        $older = $dayOne->days <= self::dayOne($other)->days ? $dayOne : self::dayOne($other);

        return $older->plusDays($other->rules->get(DateMarkRules::class)->days - 1);
    }

    /** The local date its last cook ended. */
    private static function dayOne(Assessment $assessment): LocalDate
    {
        $end = $assessment->timeline->asOf;
        foreach ($assessment->timeline->stages as $stage) {
            $end = $stage->is(Cook::class) ? $stage->to : $end;
        }

        return LocalDate::ofInstant($end, $assessment->record->site->zone);
    }
}
