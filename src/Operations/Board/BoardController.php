<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Board;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Chain\RecordingClock;
use Verjuicer\App\Operations\Alarm\AlarmLines;
use Verjuicer\App\Operations\Due\Claims;
use Verjuicer\App\Operations\Due\DueLines;
use Verjuicer\App\Operations\Due\SiteDues;
use Verjuicer\App\Operations\Plan\PlannedLanes;
use Verjuicer\App\Operations\Probe\SensorTroubles;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Page\RenderedPart;
use Verjuicer\App\Platform\Picture\TimeAxis;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\Core\Measure\Span;

/** The board: every open batch as a lane on one axis of time, and what is due next across all of them. */
final class BoardController extends AbstractController
{
    private const HOURS_BACK = 6;
    private const HOURS_AHEAD = 6;
    private const HOURS_ENDED = 18;
    private const MOST_ENDED = 60;
    private const MOST_UNSETTLED = 12;
    private const MOST_ON_WALL = 8;
    /** Where alarms stand above them. */
    private const MOST_BELOW_ALARMS = 7;
    private const STALE_SECONDS = 30;

    public function __construct(
        private readonly Lanes $lanes,
        private readonly SiteDues $siteDues,
        private readonly MeasureFormatter $figures,
        private readonly RenderedPart $part,
        private readonly Claims $claims,
        private readonly FirstSteps $firstSteps,
        private readonly PlannedLanes $planned,
        private readonly SensorTroubles $troubles,
        private readonly AlarmLines $alarms,
        private readonly CurrentAccount $account,
        private readonly Now $now,
        private readonly RecordingClock $clock,
    ) {
    }

    #[Route('/', name: 'board', methods: ['GET'])]
    public function board(Request $request): Response
    {
        $filter = BoardFilter::of($request);
        $site = $this->account->get()->site;
        $version = $this->lanes->current($site);

        return $this->render('operations/board/board.html.twig', [
            'now' => $this->now->instant(),
            'live' => $this->part($filter, $version),
            'alarms' => $this->alarmsPart(),
            'filter' => $filter,
            'entry_id' => Uuid::v7()->toRfc4122(),
            // Where there is a lane, a batch was begun.
            'first_steps' => $version > 0 ? [] : $this->firstSteps->of($site),
        ]);
    }

    /** The part of the board that changes, for the script that keeps it current. */
    #[Route('/board/live', name: 'board_live', methods: ['GET'])]
    public function live(Request $request): Response
    {
        $filter = BoardFilter::of($request);

        return $this->changed($request, fn (int $version): array => [
            'alarms' => $this->alarmsPart(),
            'board' => $this->part($filter, $version),
        ]);
    }

    /** The board for a screen on the wall. It is dim while the kitchen is closed. */
    #[Route('/wall', name: 'wall', methods: ['GET'])]
    public function wall(): Response
    {
        return $this->render('operations/board/wall.html.twig', [
            'site' => $this->account->get()->site,
            'now' => $this->now->instant(),
            'part' => $this->wallPart(),
            'alarms' => $this->alarmsPart(),
        ]);
    }

    #[Route('/wall/live', name: 'wall_live', methods: ['GET'])]
    public function wallLive(Request $request): Response
    {
        return $this->changed($request, fn (int $version): array => [
            'alarms' => $this->alarmsPart(),
            'wall' => $this->wallPart($version),
        ]);
    }

    /**
     * The parts where anything changed since they were asked for last; else that nothing did. Time moves on, too: half
     * a minute is as old as a part gets.
     *
     * @param \Closure(int): array<string, string> $parts HTML by name, of a version of the lanes
     */
    private function changed(Request $request, \Closure $parts): Response
    {
        $site = $this->account->get()->site;
        $now = $this->now->instant();
        [$version, $length] = $this->lanes->state($site);
        $response = new Response();
        $response->setEtag(hash('xxh128', implode('/', [
            $request->getRequestUri(),
            $site->id->toRfc4122(),
            $version,
            $length,
            implode(',', $this->account->get()->getRoles()),
            intdiv($now->epoch, self::STALE_SECONDS),
            $this->alarms->watchLateBy() === null ? '' : 'late',
            $this->clock->isRefused($site->id->toRfc4122()) ? 'clock' : '',
        ])));
        $response->headers->set('Cache-Control', 'private, no-cache');
        $response->setVary('Cookie');

        return $response->isNotModified($request)
            ? $response
            : $this->render('platform/_live.html.twig', ['now' => $now, 'parts' => $parts($version)], $response);
    }

    /** Apart from the rest, which is left alone while somebody uses it. */
    private function alarmsPart(): string
    {
        $site = $this->account->get()->site;

        return trim($this->renderView('operations/alarm/_board.html.twig', [
            'site' => $site,
            'alarms' => $this->alarms->of($site),
            'is_test_due' => $this->alarms->isTestDue($site),
            'watch_late' => $this->alarms->watchLateBy(),
            'now' => $this->now->instant(),
        ]));
    }

    /** @param int|null $version of the lanes, where it is known */
    private function wallPart(?int $version = null): string
    {
        $site = $this->account->get()->site;
        $most = $this->alarms->of($site) === [] ? self::MOST_ON_WALL : self::MOST_BELOW_ALARMS;
        $state = [$site->id->toRfc4122(), $version ?? $this->lanes->current($site), $most];

        return $this->part->of(
            'operations/board/_wall.html.twig',
            $state,
            fn (): array => [
                'view' => $this->view(BoardFilter::all()),
                'site' => $site,
                'most' => $most,
            ],
        );
    }

    /** @param int|null $version of the lanes, where it is known */
    private function part(BoardFilter $filter, ?int $version = null): string
    {
        $site = $this->account->get()->site;
        $state = [
            $site->id->toRfc4122(),
            $version ?? $this->lanes->current($site),
            $this->isGranted('ROLE_CREW'),
            $filter->at,
            $filter->by,
        ];

        return $this->part->of(
            'operations/board/_live.html.twig',
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
        $dues = $this->siteDues->of($site, [...$lanes, ...$unsettled]);
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
            $filter->isOn() ? [] : $this->troubles->of($site),
        );
    }
}
