<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Board;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
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
use Verjuicer\App\Work\Plan\PlannedLanes;
use Verjuicer\Core\Measure\Span;

/** The board: every open batch as a lane on one axis of time, and what is due next across all of them. */
final class BoardController extends AbstractController
{
    private const HOURS_BACK = 6;
    private const HOURS_AHEAD = 6;
    private const HOURS_ENDED = 18;
    private const MOST_ENDED = 60;
    private const MOST_UNSETTLED = 12;
    private const MOST_ON_WALL = 9;

    public function __construct(
        private readonly Lanes $lanes,
        private readonly DueNext $dueNext,
        private readonly Figures $figures,
        private readonly RenderedPart $part,
        private readonly HoldUnits $units,
        private readonly Claims $claims,
        private readonly FirstSteps $firstSteps,
        private readonly PlannedLanes $planned,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('/', name: 'board', methods: ['GET'])]
    public function board(Request $request): Response
    {
        $filter = BoardFilter::of($request);

        return $this->render('work/board/board.html.twig', [
            'now' => $this->now->instant(),
            'live' => $this->part($filter),
            'filter' => $filter,
            'entry_id' => Uuid::v7()->toRfc4122(),
            'first_steps' => $this->firstSteps->of($this->account->get()->site),
        ]);
    }

    /** The part of the board that changes, for the script that keeps it current. */
    #[Route('/board/live', name: 'board_live', methods: ['GET'])]
    public function live(Request $request): Response
    {
        return $this->render(
            'platform/_live.html.twig',
            ['now' => $this->now->instant(), 'parts' => ['board' => $this->part(BoardFilter::of($request))]],
            new Response(headers: ['Cache-Control' => 'no-store, private']),
        );
    }

    /** The board for a screen on the wall. It is dim while the kitchen is closed. */
    #[Route('/wall', name: 'wall', methods: ['GET'])]
    public function wall(): Response
    {
        return $this->render('work/board/wall.html.twig', [
            'site' => $this->account->get()->site,
            'now' => $this->now->instant(),
            'part' => $this->wallPart(),
        ]);
    }

    #[Route('/wall/live', name: 'wall_live', methods: ['GET'])]
    public function wallLive(): Response
    {
        return $this->render(
            'platform/_live.html.twig',
            ['now' => $this->now->instant(), 'parts' => ['wall' => $this->wallPart()]],
            new Response(headers: ['Cache-Control' => 'no-store, private']),
        );
    }

    private function wallPart(): string
    {
        $site = $this->account->get()->site;
        $state = [$site->id->toRfc4122(), $this->lanes->current($site)];

        return $this->part->of(
            'work/board/_wall.html.twig',
            $state,
            fn (): array => [
                'view' => $this->view(BoardFilter::all()),
                'site' => $site,
                'most' => self::MOST_ON_WALL,
            ],
        );
    }

    private function part(BoardFilter $filter): string
    {
        $site = $this->account->get()->site;
        $state = [
            $site->id->toRfc4122(),
            $this->lanes->current($site),
            $this->isGranted('ROLE_CREW'),
            $filter->at,
            $filter->by,
        ];

        return $this->part->of(
            'work/board/_live.html.twig',
            $state,
            fn (): array => ['view' => $this->view($filter), 'site' => $site],
        );
    }

    private function view(BoardFilter $filter): BoardView
    {
        $site = $this->account->get()->site;
        $now = $this->now->instant();
        $zone = $site->zone();
        $from = $now->plus(Span::ofHours(-self::HOURS_BACK));
        $axis = new TimeAxis($from, $now->plus(Span::ofHours(self::HOURS_AHEAD)), 0, LanePicture::WIDTH);
        $list = $this->lanes->open($site);
        $lanes = array_values(array_filter($list->lanes, $filter->takes(...)));
        $unsettled = $filter->at === ''
            ? \array_slice($this->lanes->unsettled($site)->rows, 0, self::MOST_UNSETTLED)
            : [];
        $ended = $this->lanes->endedSince($site, $now->plus(Span::ofHours(-self::HOURS_ENDED)), self::MOST_ENDED);
        $claims = $this->claims->of($site);
        $dues = $this->dueNext->of([...$lanes, ...$unsettled], $now, $site->unit, $this->units->intervals($site));
        $pictures = [];
        $planned = $this->planned->of($site);
        foreach ($lanes as $lane) {
            $pictures[$lane->batchId] = LanePicture::of(
                $lane,
                $axis,
                $site->unit,
                $zone,
                $this->figures,
                $now,
                $planned[$lane->batchId] ?? null,
            );
        }

        return new BoardView(
            $now,
            $site,
            $lanes,
            LaneGroups::of($lanes),
            $pictures,
            $list->unreadable,
            $axis,
            $axis->hours($zone, $this->figures),
            DueLines::of($filter->dues($dues, $claims)),
            $filter->isOn() ? 0 : $this->lanes->countUnsettled($site) - \count($unsettled),
            $claims,
            $filter->isOn() ? [] : $ended->lanes,
            \count($ended->lanes) === self::MOST_ENDED,
            $filter,
            BoardFilter::choices($list->lanes, $claims),
        );
    }
}
