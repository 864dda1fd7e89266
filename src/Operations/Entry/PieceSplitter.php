<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Batch\HeldPieces;
use Verjuicer\App\Ledger\Log\EventLog;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Opening\Portioning;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Kinds\Close;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Event\Kinds\Voided;
use Verjuicer\Core\Food\NoteStep;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;

/**
 * Where an entry about one piece belongs: to the batch that holds the piece by now; and where what it says is about a
 * whole batch, the piece becomes a batch of its own at that moment, and the rest goes on.
 */
final readonly class PieceSplitter
{
    public function __construct(
        private HeldPieces $held,
        private Batches $batches,
        private Ledger $ledger,
        private Portioning $portioning,
        private EventLog $log,
    ) {
    }

    /**
     * @param list<Draft> $drafts
     *
     * @return list<Destination> of each
     *
     * @throws EntryProblem if the batch never had such a piece
     */
    public function of(Batch $batch, array $drafts): array
    {
        $held = $this->held->numbers($batch);
        $ways = [];
        $destinations = [];
        foreach ($drafts as $draft) {
            $piece = $draft->ofPiece ?? ($draft->isPieceOpen ? null : self::pieceOf($draft->detail));
            if ($piece !== null && $draft->replaces === null && !\in_array($piece, $held, true)) {
                $way = $this->held->wayOf($batch, $piece) ?? throw EntryProblem::unknownPiece($piece, $held);
                $ways[$piece] ??= $this->batches->get($way);
                $destinations[] = $this->of($ways[$piece], [$draft])[0];
            } elseif ($piece === null || $draft->ofPiece === null || \count($held) === 1) {
                $destinations[] = new Destination($batch);
            } else {
                $tag = $this->portioning->tags($batch, 1, $piece)[0] ?? throw EntryProblem::noTagLeft();
                $destinations[] = new Destination($batch, $piece, $tag);
            }
        }

        return $destinations;
    }

    /**
     * Lets pieces go their own way together, under a tag of their own; the rest goes on.
     *
     * @param Uuid $id made by the client: the same again is done once
     * @param non-empty-list<int> $pieces some of those it holds, never all
     *
     * @throws \Verjuicer\App\Ledger\Batch\TagInUse if an open batch has the tag
     * @throws \Verjuicer\App\Ledger\Log\EventConflict if it lies ahead of now
     */
    public function apart(Uuid $id, Batch $batch, Account $by, Instant $at, array $pieces, int $tag): Batch
    {
        return $this->ledger->write($batch->site, function () use ($id, $batch, $by, $at, $pieces, $tag): Batch {
            $words = implode(', ', $pieces);
            $went = new Note(step: NoteStep::PartedWays, pieceNumbers: $words, asTag: $tag);
            $this->log->append($batch, $by, new Event($id->toRfc4122(), $at, $by->initials, $went));
            $portion = $this->portioning->begin(Uuid::v5($id, 'portion'), $by, $batch, $id, $tag, $at, pieces: $pieces);
            $begun = new Note(step: NoteStep::Portioned, pieceNumbers: $words);
            $this->log->append(
                $portion,
                $by,
                new Event(Uuid::v5($id, 'begun')->toRfc4122(), $at, $by->initials, $begun),
            );

            return $portion;
        });
    }

    /**
     * Where the only thing that was said of pieces on their own is taken back, they never went: the parting is taken
     * back, too. Within a write.
     *
     * @param Uuid $id made by the client: the same again is done once
     */
    public function rejoin(Uuid $id, Batch $batch, Account $by, Instant $at, string $reason): void
    {
        if ($batch->pieceNumbers === null || $batch->parent === null || $this->held->hasHistory($batch)) {
            return;
        }
        $parting = $this->portioning->partingOf($batch);
        if ($parting !== null) {
            $void = new Event(
                Uuid::v5($id, 'rejoin')->toRfc4122(),
                $at,
                $by->initials,
                new Voided(),
                $parting,
                $reason,
            );
            $this->log->append($batch->parent, $by, $void);
            $close = new Close(NoteStep::Rejoined, $batch->parent->code);
            $this->log->append(
                $batch,
                $by,
                new Event(Uuid::v5($id, 'rejoined')->toRfc4122(), $at, $by->initials, $close, null, $reason),
            );
        }
    }

    private static function pieceOf(Detail $detail): ?int
    {
        $piece = EventKinds::of($detail::class)->values($detail)['piece'] ?? null;

        return \is_int($piece) ? $piece : null;
    }
}
