<?php

declare(strict_types=1);

namespace Verjuicer\App\Board;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Account\CurrentAccount;
use Verjuicer\App\Record\Now;
use Verjuicer\App\Wording\Figures;
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
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('/', name: 'board', methods: ['GET'])]
    public function board(): Response
    {
        return $this->render('board/board.html.twig', $this->view() + ['entry_id' => Uuid::v7()->toRfc4122()]);
    }

    /** The part of the board that changes, for the script that keeps it current. */
    #[Route('/board/live', name: 'board_live', methods: ['GET'])]
    public function live(): Response
    {
        $response = $this->render('board/_live.html.twig', $this->view());
        $response->headers->set('Cache-Control', 'no-store, private');

        return $response;
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
            'dues' => $this->dueNext->of($lanes, $now, $site->unit),
            'ended' => $this->lanes->endedSince($site, $now->plus(Span::ofHours(-self::HOURS_ENDED))),
        ];
    }
}
