<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Board;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Holding\HoldUnits;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Page\RenderedPart;
use Verjuicer\App\Platform\Picture\TimeAxis;
use Verjuicer\App\Platform\Wording\Figures;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Work\Due\Claims;
use Verjuicer\App\Work\Due\DueLines;
use Verjuicer\App\Work\Due\DueNext;
use Verjuicer\Core\Measure\Span;

/** The board: every open batch as a lane on one axis of time, and what is due next across all of them. */
final class BoardController extends AbstractController
{
    /** As many as fit on one screen beside the lanes. */
    private const HOURS_BACK = 6;
    private const HOURS_AHEAD = 6;
    private const HOURS_ENDED = 18;
    private const MOST_ENDED = 60;
    private const MOST_UNSETTLED = 12;

    public function __construct(
        private readonly Lanes $lanes,
        private readonly DueNext $dueNext,
        private readonly Figures $figures,
        private readonly RenderedPart $part,
        private readonly HoldUnits $units,
        private readonly Claims $claims,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('/', name: 'board', methods: ['GET'])]
    public function board(): Response
    {
        return $this->render('work/board/board.html.twig', [
            'now' => $this->now->instant(),
            'live' => $this->part(),
            'entry_id' => Uuid::v7()->toRfc4122(),
        ]);
    }

    /** The part of the board that changes, for the script that keeps it current. */
    #[Route('/board/live', name: 'board_live', methods: ['GET'])]
    public function live(): Response
    {
        $context = ['now' => $this->now->instant(), 'part' => $this->part()];

        return $this->render(
            'platform/_live.html.twig',
            $context,
            new Response(headers: ['Cache-Control' => 'no-store, private']),
        );
    }

    private function part(): string
    {
        $site = $this->account->get()->site;
        $state = [$site->id->toRfc4122(), $this->lanes->version($site), $this->isGranted('ROLE_CREW')];

        return $this->part->of('work/board/_live.html.twig', $state, $this->view(...));
    }

    /** @return array<string, mixed> */
    private function view(): array
    {
        $site = $this->account->get()->site;
        $now = $this->now->instant();
        $zone = $site->zone();
        $from = $now->plus(Span::ofHours(-self::HOURS_BACK));
        $axis = new TimeAxis($from, $now->plus(Span::ofHours(self::HOURS_AHEAD)), 0, LanePicture::WIDTH);
        $list = $this->lanes->open($site);
        $unsettled = \array_slice($this->lanes->unsettled($site)->rows, 0, self::MOST_UNSETTLED);
        $ended = $this->lanes->endedSince($site, $now->plus(Span::ofHours(-self::HOURS_ENDED)), self::MOST_ENDED);

        return [
            'now' => $now,
            'site' => $site,
            'groups' => LaneGroups::of($list->lanes),
            'pictures' => array_combine(
                array_map(static fn (Lane $lane): string => $lane->batchId, $list->lanes),
                array_map(
                    fn (Lane $lane): LanePicture => LanePicture::of(
                        $lane,
                        $axis,
                        $site->unit,
                        $zone,
                        $this->figures,
                        $now,
                    ),
                    $list->lanes,
                ),
            ),
            'unreadable' => $list->unreadable,
            'axis' => $axis,
            'hours' => $axis->hours($zone),
            'lines' => ($lines = DueLines::of(
                $this->dueNext->of([...$list->lanes, ...$unsettled], $now, $site->unit, $this->units->intervals($site)),
            )),
            'lines_shown' => DueLines::shown($lines),
            'more_unsettled' => $this->lanes->countUnsettled($site) - \count($unsettled),
            'claims' => $this->claims->of($site),
            'ended' => $ended->lanes,
            'has_more_ended' => \count($ended->lanes) === self::MOST_ENDED,
        ];
    }
}
