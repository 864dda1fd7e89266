<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpFoundation\StreamedResponse;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Catalogue\Sensor\Sensor;
use Verjuicer\App\Catalogue\Sensor\SensorChannel;
use Verjuicer\App\Catalogue\Sensor\Sensors;
use Verjuicer\App\Ledger\Series\Assignments;
use Verjuicer\App\Ledger\Series\RawSeries;
use Verjuicer\App\Ledger\Series\SensorFaults;
use Verjuicer\App\Platform\Csv\Csv;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Platform\Problem\RedisplaysForm;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\People\RequiresRecentPassword;
use Verjuicer\App\Site\Site\EventTimeParser;
use Verjuicer\Core\Measure\Instant;

/** The sensors that log themselves: what they say, what is wrong with it, where each channel is. */
#[Route('/sensors')]
final class SensorController extends FormController implements RedisplaysForm
{
    private const MOST_CHANNELS = 16;

    public function __construct(
        private readonly Sensors $sensors,
        private readonly Assignments $assignments,
        private readonly SensorFaults $faults,
        private readonly SensorTroubles $troubles,
        private readonly DeadLetters $deadLetters,
        private readonly PlaceProbe $placing,
        private readonly PlacementOptions $choices,
        private readonly RawSeries $raw,
        private readonly EventTimeParser $happened,
        private readonly MeasureFormatter $figures,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('', name: 'sensors', methods: ['GET'])]
    public function list(): Response
    {
        return $this->all($this->blank(['channels' => '1']));
    }

    #[IsGranted('ROLE_MANAGER')]
    #[RequiresRecentPassword]
    #[Route('', name: 'sensor_register', methods: ['POST'])]
    public function register(Request $request): Response
    {
        $input = $this->read($request, 'sensor');
        $name = $input->text('name', true, 9);
        $channels = $input->whole('channels', 1, self::MOST_CHANNELS, true);
        if (preg_match('/^\pL[\pL\pN-]*$/u', $name) !== 1) {
            $input->refuse('name', 'thermometer.problem.label');
        }
        if (!$input->isGood() || $channels === null) {
            return $this->all($input);
        }
        \assert($channels >= 1 && $channels <= self::MOST_CHANNELS, 'as it was read');
        try {
            [$id, $secret] = $this->sensors->register($name, $channels, $input->text('serial'), $this->account->get());
        } catch (UniqueConstraintViolationException) {
            $input->refuse('name', 'form.problem.name_taken');

            return $this->all($input);
        }

        return $this->one($this->find($id), $this->blank(), $secret);
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/dead-letters', name: 'sensor_dead_letter', methods: ['POST'])]
    public function lookedAt(Request $request): Response
    {
        $input = $this->read($request, 'sensor');
        if (!$input->isGood()) {
            return $this->all($input);
        }
        $this->deadLetters->lookedAt($this->account->get(), $input->text('sensor'), $input->text('digest'));

        return $this->kept('probe.dead.looked', 'sensors');
    }

    #[Route('/{sensor}', name: 'sensor', requirements: ['sensor' => Requirement::UUID], methods: ['GET'])]
    public function show(string $sensor): Response
    {
        return $this->one($this->find($sensor), $this->blank(['when' => $this->happened->now(), 'piece' => '1']));
    }

    #[IsGranted('ROLE_CREW')]
    #[Route(
        '/{sensor}/channels/{number}',
        name: 'sensor_place',
        requirements: ['sensor' => Requirement::UUID, 'number' => '\d{1,2}'],
        methods: ['POST'],
    )]
    public function place(string $sensor, int $number, Request $request): Response
    {
        $found = $this->find($sensor);
        $channel = $found->channel($number) ?? throw $this->createNotFoundException();
        $input = $this->read($request, 'sensor');
        $site = $this->account->get()->site;
        $choice = $input->text('where', true);
        $piece = $input->whole('piece', 1, 500) ?? 1;
        $where = PlacementTarget::chosen($choice, $piece, $input->text('spot', false, 40));
        if ($where === null || !isset($this->choices->of($site)[$choice])) {
            $input->refuse('where', 'probe.problem.where');
        }
        $at = $input->read('when', fn (string $given): Instant => $this->happened->read($given, $site));
        if (!$input->isGood() || $where === null || $at === null) {
            return $this->one($found, $input);
        }
        $this->placing->place($input->id(), $channel, $this->account->get(), $at, $where);

        return $this->kept('probe.placed', 'sensor', ['sensor' => $sensor]);
    }

    #[IsGranted('ROLE_MANAGER')]
    #[RequiresRecentPassword]
    #[Route('/{sensor}/token', name: 'sensor_renew', requirements: ['sensor' => Requirement::UUID], methods: ['POST'])]
    public function renew(string $sensor, Request $request): Response
    {
        $found = $this->find($sensor);
        $input = $this->read($request, 'sensor');

        return $this->one(
            $found,
            $input,
            $input->isGood() ? $this->sensors->renew($found, $this->account->get()) : null,
        );
    }

    #[IsGranted('ROLE_MANAGER')]
    #[RequiresRecentPassword]
    #[Route(
        '/{sensor}/revoke',
        name: 'sensor_revoke',
        requirements: ['sensor' => Requirement::UUID],
        methods: ['POST'],
    )]
    public function revoke(string $sensor, Request $request): Response
    {
        $found = $this->find($sensor);
        $input = $this->read($request, 'sensor');
        if (!$input->isGood()) {
            return $this->one($found, $input);
        }
        $this->sensors->revoke($found, $this->account->get()->site);

        return $this->kept('probe.revoked', 'sensors');
    }

    /** Every sample of a channel, as it came. */
    #[Route(
        '/{sensor}/channels/{number}/series.csv',
        name: 'sensor_series',
        requirements: ['sensor' => Requirement::UUID, 'number' => '\d{1,2}'],
        methods: ['GET'],
    )]
    public function series(string $sensor, int $number): Response
    {
        $channel = $this->find($sensor)->channel($number) ?? throw $this->createNotFoundException();
        $siteId = $this->account->get()->site->id->toRfc4122();
        $to = $this->now->instant()->epoch;

        return new StreamedResponse(
            function () use ($siteId, $channel, $to): void {
                echo Csv::line(['thermometer', 'sequence', 'at', 'temperature', 'unit']);
                foreach ($this->raw->between($siteId, $channel->id, 0, $to) as $sample) {
                    echo Csv::line([
                        $channel->label,
                        $sample->sequence,
                        Instant::ofEpoch($sample->at)->rfc3339(),
                        $sample->temp?->number(),
                        $sample->temp?->unit->value,
                    ]);
                }
            },
            headers: [
                'Content-Type' => 'text/csv; charset=UTF-8; header=present',
                'Content-Disposition' => "attachment; filename=\"{$channel->label}.csv\"",
            ],
        );
    }

    public function showAgain(Request $request, Problem $problem): Response
    {
        return $this->one($this->find($request->attributes->getString('sensor')), $this->refused($request, $problem));
    }

    private function all(FormInput $input): Response
    {
        $site = $this->account->get()->site;

        return $this->page('operations/probe/list.html.twig', $input, [
            'site' => $site,
            'sensors' => $this->sensors->of($site),
            'dead_letters' => $this->deadLetters->of($site),
            'places' => $this->assignments->current($site),
            'troubles' => $this->troubles->of($site),
        ]);
    }

    private function one(Sensor $sensor, FormInput $input, ?string $secret = null): Response
    {
        $site = $this->account->get()->site;
        $now = $this->now->instant();
        $current = $this->assignments->currentOf(
            array_map(static fn (SensorChannel $one): string => $one->id, $sensor->channels),
        );
        $rows = array_map(fn (SensorChannel $channel): array => [
            'channel' => $channel,
            'assignment' => $current[$channel->id] ?? null,
            'choice' => PlacementTarget::choiceOf($current[$channel->id] ?? null),
            'history' => $this->assignments->of($channel->id, 12),
            'faults' => $this->faults->of($channel->id, 12),
            'picture' => SeriesPicture::of(
                $this->raw->between(
                    $site->id->toRfc4122(),
                    $channel->id,
                    SeriesPicture::from($now)->epoch,
                    $now->epoch,
                ),
                $site,
                $now,
                $this->figures,
            ),
        ], $sensor->channels);

        return $this->page('operations/probe/sensor.html.twig', $input, [
            'site' => $site,
            'sensor' => $sensor,
            'rows' => $rows,
            'choices' => $this->choices->of($site),
            'troubles' => array_filter(
                $this->troubles->of($site),
                static fn (SensorTrouble $one): bool => $one->sensorId === $sensor->id,
            ),
            'secret' => $secret,
            'login' => $secret === null ? null : BrokerLogin::of($secret),
            'topic' => $secret === null ? null : SignedMessage::of($secret, '')->topic(),
        ]);
    }

    private function find(string $id): Sensor
    {
        return $this->sensors->find($this->account->get()->site, $id) ?? throw $this->createNotFoundException();
    }
}
