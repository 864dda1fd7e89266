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
use Verjuicer\App\Projection\Lane\BoardLanes;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Work\Due\Claims;
use Verjuicer\App\Work\Due\DueNext;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

final class BoardController extends AbstractController
{
    private const HOURS_BACK = 6;
    private const HOURS_AHEAD = 6;
    private const HOURS_ENDED = 18;

    public function __construct(
        private readonly BoardLanes $lanes,
        private readonly DueNext $dueNext,
        private readonly RuleSetLibrary $ruleSets,
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
        return $this->render('board/board.html.twig', ['now' => $this->now->instant(), 'live' => $this->part(), 'entry_id' => Uuid::v7()->toRfc4122()]);
    }

    /** The part of the board that changes, for the script that keeps it current. */
    #[Route('/board/live', name: 'board_live', methods: ['GET'])]
    public function live(): Response
    {
        return $this->render('_live.html.twig', ['now' => $this->now->instant(), 'part' => $this->part()], new Response(headers: ['Cache-Control' => 'no-store, private']));
    }

    private function part(): string
    {
        $site = $this->account->get()->site;

        return $this->part->of('board/_live.html.twig', [$site->id->toRfc4122(), $this->lanes->version($site, $this->now->instant()), $this->isGranted('ROLE_CREW')], $this->view(...));
    }

    /** @return array<string, mixed> */
    private function view(): array
    {
        $site = $this->account->get()->site;
        $now = $this->now->instant();
        $zone = $site->zone();
        $axis = new TimeAxis($now->plus(Span::ofHours(-self::HOURS_BACK)), $now->plus(Span::ofHours(self::HOURS_AHEAD)), 0, LanePicture::WIDTH);
        $lanes = $this->lanes->open($site, $now);

        return [
            'now' => $now,
            'site' => $site,
            'lanes' => array_map(fn (Lane $lane): array => [
                'lane' => $lane,
                'picture' => LanePicture::of($lane, $axis, $this->ruleSets->get($lane->ruleSet), $site->unit, $zone, $this->figures, $now),
            ], $lanes),
            'axis' => $axis,
            'hours' => $axis->hours($zone),
            'dues' => $this->dueNext->of($lanes, $now, $site->unit, $this->units->intervals($site)),
            'claims' => $this->claims->of($site),
            'ended' => $this->lanes->endedSince($site, $now->plus(Span::ofHours(-self::HOURS_ENDED))),
        ];
    }
}
