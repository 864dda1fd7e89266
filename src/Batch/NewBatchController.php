<?php

declare(strict_types=1);

namespace Verjuicer\App\Batch;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\InputBag;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Account\CurrentAccount;
use Verjuicer\App\Board\BoardLanes;
use Verjuicer\App\Product\Product;
use Verjuicer\App\Record\Now;
use Verjuicer\App\Thermometer\Thermometers;
use Verjuicer\Core\Measure\MalformedTemperature;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Record\Detail;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Record\Oven;

#[IsGranted('ROLE_CREW')]
final class NewBatchController extends AbstractController
{
    private const GRAMS_IN = ['kg' => 1000.0, 'lb' => 453.59237];
    private const HIGHEST_TAG = 999;
    private const MOST_PIECES = 500;

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly NewBatches $batches,
        private readonly BoardLanes $lanes,
        private readonly Thermometers $thermometers,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('/batches/new', name: 'batch_new', methods: ['GET'])]
    public function form(): Response
    {
        /** @var InputBag<string> $form */
        $form = new InputBag(['tag' => (string) $this->lowestFreeTag(), 'pieces' => '1', 'weight_unit' => 'kg', 'start' => 'prep', 'id' => Uuid::v7()->toRfc4122()]);

        return $this->page($form, []);
    }

    #[Route('/batches/new', name: 'batch_begin', methods: ['POST'])]
    public function begin(Request $request): Response
    {
        $form = $request->request;
        if (!$this->isCsrfTokenValid('new_batch', $form->getString('_token'))) {
            return $this->page($form, ['form' => 'entry.problem.expired'], Response::HTTP_FORBIDDEN);
        }
        $site = $this->account->get()->site;
        $problems = [];
        $product = Uuid::isValid($form->getString('product')) ? $this->entities->find(Product::class, Uuid::fromString($form->getString('product'))) : null;
        if ($product === null || !$product->site->id->equals($site->id)) {
            $problems['product'] = 'new.problem.product';
        }
        $tag = self::whole($form->getString('tag'), self::HIGHEST_TAG);
        if ($tag === null) {
            $problems['tag'] = 'new.problem.tag';
        }
        $pieces = self::whole($form->getString('pieces'), self::MOST_PIECES);
        if ($pieces === null) {
            $problems['pieces'] = 'new.problem.pieces';
        }
        $grams = self::grams($form->getString('weight'), $form->getString('weight_unit'));
        if ($grams === 0) {
            $problems['weight'] = 'new.problem.weight';
        }
        $temperature = $set = null;
        foreach (['temp' => &$temperature, 'set' => &$set] as $name => &$read) {
            if (trim($form->getString($name)) !== '') {
                try {
                    $read = Temperature::parse($form->getString($name), $site->unit);
                } catch (MalformedTemperature) {
                    $problems[$name] = 'new.problem.temp';
                }
            }
        }
        unset($read);
        if (!Uuid::isValid($form->getString('id'))) {
            $problems['form'] = 'entry.problem.no_id';
        }
        if ($problems !== [] || $product === null || $tag === null || $pieces === null) {
            return $this->page($form, $problems, Response::HTTP_UNPROCESSABLE_ENTITY);
        }
        $id = Uuid::fromString($form->getString('id'));
        try {
            $batch = $this->batches->begin($id, $this->account->get(), $this->now->instant(), $product, $tag, $pieces, $grams, $form->getBoolean('stuffed'), $form->getBoolean('wild'), $form->getBoolean('advisory'), ...$this->firstEvents($form, $temperature, $set));
        } catch (TagInUse) {
            return $this->page($form, ['tag' => 'new.problem.tag_in_use'], Response::HTTP_CONFLICT);
        }

        return $this->redirectToRoute('batch', ['id' => $batch->id->toRfc4122()], Response::HTTP_SEE_OTHER);
    }

    /**
     * @param InputBag<string> $form
     *
     * @return list<Event>
     */
    private function firstEvents(InputBag $form, ?Temperature $temperature, ?Temperature $set): array
    {
        $now = $this->now->instant();
        $by = $this->account->get()->initials;
        $events = [$form->getString('start') === 'cook'
            ? new Event(Uuid::v7()->toRfc4122(), $now, $by, EventType::Cook, new Detail\Cook(Oven::tryFrom($form->getString('oven')), $set))
            : new Event(Uuid::v7()->toRfc4122(), $now, $by, EventType::Prep, Detail\Bare::of())];
        if ($form->getBoolean('injected')) {
            $events[] = new Event(Uuid::v7()->toRfc4122(), $now, $by, EventType::Inject, Detail\Bare::of());
        }
        if ($temperature !== null) {
            $thermometer = $form->getString('thermometer');
            $events[] = new Event(Uuid::v7()->toRfc4122(), $now, $by, EventType::Reading, new Detail\Reading($temperature, 1, 'core', $thermometer === '' ? null : $thermometer));
        }

        return $events;
    }

    /**
     * @param InputBag<string>      $form
     * @param array<string, string> $problems
     */
    private function page(InputBag $form, array $problems, int $status = Response::HTTP_OK): Response
    {
        $site = $this->account->get()->site;

        return $this->render('batch/new.html.twig', [
            'site' => $site,
            'form' => $form,
            'problems' => $problems,
            'products' => $this->entities->getRepository(Product::class)->findBy(['site' => $site], ['name' => 'ASC']),
            'thermometers' => $this->thermometers->labels($site),
            'ovens' => Oven::cases(),
            'tags' => $this->lanes->tagsInUse($site),
        ], new Response(status: $status));
    }

    private function lowestFreeTag(): int
    {
        $inUse = $this->lanes->tagsInUse($this->account->get()->site);
        $tag = 1;
        while (\in_array($tag, $inUse, true)) {
            ++$tag;
        }

        return $tag;
    }

    private static function whole(string $given, int $most): ?int
    {
        return ctype_digit($given) && (int) $given >= 1 && (int) $given <= $most ? (int) $given : null;
    }

    /** @return int|null grams of one piece, rounded down so that no roast counts as heavier than it is; null where none is given, 0 where it is no weight */
    private static function grams(string $given, string $unit): ?int
    {
        $number = str_replace(',', '.', trim($given));
        if ($number === '') {
            return null;
        }

        return is_numeric($number) && $number > 0 && $number < 1000 ? max(1, (int) floor((float) $number * (self::GRAMS_IN[$unit] ?? 1000.0))) : 0;
    }
}
