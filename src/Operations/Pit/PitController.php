<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Pit;

use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Log\PitShare;
use Verjuicer\App\Ledger\Log\SiteEvent;
use Verjuicer\App\Ledger\Pit\PitHistory;
use Verjuicer\App\Operations\Entry\Draft;
use Verjuicer\App\Operations\Entry\RecordEntry;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Platform\Problem\RedisplaysForm;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Settings\SiteRules;
use Verjuicer\App\Site\Site\EventTimeParser;
use Verjuicer\Core\Event\Kinds\Voided;
use Verjuicer\Core\Food\Oven;
use Verjuicer\Core\Food\PitSign;
use Verjuicer\Core\Measure\Instant;

/** The pits: fire, set point, readings, fuel and lid, and what is in them. */
#[Route('/pits')]
final class PitController extends FormController implements RedisplaysForm
{
    private const LARGEST = 5000; // kg

    public function __construct(
        private readonly Pits $pits,
        private readonly PitHistory $history,
        private readonly PitShare $share,
        private readonly Batches $batches,
        private readonly RecordEntry $entry,
        private readonly PitLoad $load,
        private readonly SiteRules $rules,
        private readonly MeasureFormatter $figures,
        private readonly EntityManagerInterface $entities,
        private readonly EventTimeParser $happened,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('', name: 'pits', methods: ['GET'])]
    public function list(): Response
    {
        return $this->all($this->blank());
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('', name: 'pit_add', methods: ['POST'])]
    public function add(Request $request): Response
    {
        $input = $this->read($request, 'pit');
        $name = $input->text('name', true, 16);
        $kind = $input->choice('kind', Oven::class, true);
        $grams = $input->grams('capacity');
        $capacity = $grams === null ? null : (int) round($grams / 1000);
        if ($capacity !== null && ($capacity < 1 || $capacity > self::LARGEST)) {
            $input->refuse('capacity', 'pit.problem.capacity');
        }
        if (preg_match('/^\pL[\pL\pN-]*$/u', $name) !== 1) {
            $input->refuse('name', 'pit.problem.name');
        }
        if (!$input->isGood() || $kind === null) {
            return $this->all($input);
        }
        $this->entities->persist(new Pit($this->account->get()->site, $name, $kind, $capacity));
        try {
            $this->entities->flush();
        } catch (UniqueConstraintViolationException) {
            $input->refuse('name', 'form.problem.name_taken');

            return $this->all($input);
        }

        return $this->kept('pit.added', 'pits');
    }

    #[Route('/{pit}', name: 'pit', requirements: ['pit' => Requirement::UUID], methods: ['GET'])]
    public function show(string $pit): Response
    {
        return $this->one($this->find($pit), $this->blank(['when' => $this->happened->now()]));
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('/{pit}', name: 'pit_write', requirements: ['pit' => Requirement::UUID], methods: ['POST'])]
    public function write(string $pit, Request $request): Response
    {
        $found = $this->find($pit);
        $input = $this->read($request, 'pit');
        $id = $input->id();
        $sign = $input->choice('sign', PitSign::class, true);
        $temp = $sign?->hasTemperature() === true ? $input->temperature('temp', $found->site->unit, true) : null;
        $at = $input->read('when', fn (string $given): Instant => $this->happened->read($given, $found->site));
        if (!$input->isGood() || $sign === null || $at === null) {
            return $this->one($found, $input);
        }
        $this->history->add($id, $found, $this->account->get(), $at, $sign->value, $temp, $input->text('words'));

        return $this->kept('pit.kept', 'pit', ['pit' => $pit]);
    }

    #[IsGranted('ROLE_CREW')]
    #[Route(
        '/{pit}/back/{event}',
        name: 'pit_take_back',
        requirements: ['pit' => Requirement::UUID, 'event' => Requirement::UUID],
        methods: ['POST'],
    )]
    public function takeBack(string $pit, string $event, Request $request): Response
    {
        $found = $this->find($pit);
        $wrong =
            array_values(
                array_filter($this->history->of($found), static fn (SiteEvent $one): bool => $one->id === $event),
            )[0] ?? throw $this->createNotFoundException();
        $input = $this->read($request, 'pit');
        $id = $input->id();
        $reason = $input->text('reason', true);
        if (!$input->isGood()) {
            return $this->one($found, $input);
        }
        $origin = $this->share->origin($found->site, $wrong);
        if ($origin === null) {
            $this->history->takeBack($id, $found, $this->account->get(), $wrong, $reason);
        } else {
            // Entered in a batch, it is taken back there, and so here.
            $back = new Draft($id, new Voided(), $this->now->instant(), $reason, $origin['event']);
            $this->entry->keep($this->batches->get($origin['batch']), $this->account->get(), true, $back);
        }

        return $this->kept('pit.taken_back', 'pit', ['pit' => $pit]);
    }

    public function showAgain(Request $request, Problem $problem): Response
    {
        return $this->one($this->find($request->attributes->getString('pit')), $this->refused($request, $problem));
    }

    private function all(FormInput $input): Response
    {
        $now = $this->now->instant();
        $site = $this->account->get()->site;
        $house = $this->rules->of($site)->house();
        $rows = array_map(function (Pit $pit) use ($now, $house): array {
            $log = $this->history->log($pit);
            $strays = $log->strays($house->pitDrift, $house->pitDriftFor, $now);
            $last = $strays[\count($strays) - 1] ?? null;

            return [
                'pit' => $pit,
                'is_lit' => $log->isLitAt($now),
                'set' => $log->setAt($now),
                'last' => $log->lastReading($now),
                'stray' => $last?->isOpen === true ? $last : null,
                'batches' => $this->load->batchesIn($pit),
            ];
        }, $this->pits->of($site));

        return $this->page('operations/pit/list.html.twig', $input, [
            'site' => $site,
            'rows' => $rows,
            'kinds' => Oven::cases(),
        ]);
    }

    private function one(Pit $pit, FormInput $input): Response
    {
        $now = $this->now->instant();
        $house = $this->rules->of($pit->site)->house();
        $history = $this->history->of($pit);
        $log = PitHistory::read($history);
        $strays = $log->strays($house->pitDrift, $house->pitDriftFor, $now);

        return $this->page('operations/pit/pit.html.twig', $input, [
            'site' => $pit->site,
            'pit' => $pit,
            'now' => $now,
            'is_lit' => $log->isLitAt($now),
            'set' => $log->setAt($now),
            'last' => $log->lastReading($now),
            'history' => array_reverse($history),
            'strays' => array_reverse($strays),
            'limit' => $house->pitDriftFor,
            'picture' => PitPicture::of($log, $strays, $pit->site, $now, $this->figures),
            'batches' => $this->load->batchesIn($pit),
            'signs' => PitSign::cases(),
        ]);
    }

    private function find(string $id): Pit
    {
        return $this->pits->find($this->account->get()->site, $id) ?? throw $this->createNotFoundException();
    }
}
