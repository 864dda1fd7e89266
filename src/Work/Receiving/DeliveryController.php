<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Receiving;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Catalogue\Supplier\Supplier;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Ledger\Lot\Lot;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/** At the door: a delivery with its lots. Above the cold limit the screen says refuse, and asks for the decision. */
#[Route('/receiving')]
final class DeliveryController extends FormController
{
    private const MOST_LOTS = 6;
    private const LATEST = 60;

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Lots $lots,
        private readonly Products $products,
        private readonly Thermometers $thermometers,
        private readonly RuleSetLibrary $ruleSets,
        private readonly SiteLog $log,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('', name: 'receiving', methods: ['GET'])]
    public function list(): Response
    {
        $site = $this->account->get()->site;

        return $this->render('receiving/list.html.twig', ['site' => $site, 'available' => $this->lots->available($site), 'latest' => $this->lots->latest($site, self::LATEST)]);
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('/new', name: 'delivery_new', methods: ['GET'])]
    public function form(): Response
    {
        $filled = [];
        for ($row = 0; $row < self::MOST_LOTS; ++$row) {
            $filled['lot'.$row] = Uuid::v7()->toRfc4122();
        }

        return $this->show($this->blank($filled), []);
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('/new', name: 'delivery_keep', methods: ['POST'])]
    public function keep(Request $request): Response
    {
        $input = $this->read($request, 'delivery');
        $site = $this->account->get()->site;
        $delivery = $input->id();
        $supplier = $input->text('supplier', true, 80);
        $rows = [];
        $warm = [];
        for ($row = 0; $row < self::MOST_LOTS; ++$row) {
            if ($input->text('product'.$row) === '' && $input->text('number'.$row) === '') {
                continue;
            }
            $rows[$row] = $this->row($input, $row, $site);
            $temp = $rows[$row]['temp'];
            if ($temp !== null && !$rows[$row]['frozen'] && $temp->isAbove($this->ruleSets->get($site->ruleSet)->receivingCold->threshold)) {
                $warm[] = $row;
                if ($input->text('decision'.$row) === '') {
                    $input->refuse('decision'.$row, 'receiving.problem.decide');
                }
            }
            if (\in_array($input->text('decision'.$row), ['refused', 'accepted_warm'], true) && $input->text('reason'.$row) === '') {
                $input->refuse('reason'.$row, 'receiving.problem.reason');
            }
        }
        if ($rows === []) {
            $input->refuse('product0', 'receiving.problem.no_lot');
        }
        if (!$input->isGood()) {
            return $this->show($input, $warm);
        }
        $this->entities->wrapInTransaction(fn () => $this->store($delivery, $this->supplier($site, $supplier), $rows));

        return $this->kept('receiving.kept', 'receiving');
    }

    /** @return array{id: Uuid, product: \Verjuicer\App\Catalogue\Product\Product|null, number: string, pieces: int, grams: int, price: int|null, frozen: bool, temp: Temperature|null, thermometer: string|null, use_by: string|null, accepted: bool, reason: string|null, place: string} */
    private function row(FormInput $input, int $row, Site $site): array
    {
        $product = $this->products->find($site, $input->text('product'.$row));
        if ($product === null) {
            $input->refuse('product'.$row, 'new.problem.product');
        }
        $thermometer = $input->text('thermometer'.$row);
        $place = $input->text('place'.$row, most: 40);
        $reason = $input->text('reason'.$row);

        return [
            'id' => $input->id('lot'.$row),
            'product' => $product,
            'number' => $input->text('number'.$row, true, 40),
            'pieces' => $input->whole('pieces'.$row, 1, 500, true) ?? 1,
            'grams' => $input->grams('weight'.$row, true) ?? 1,
            'price' => $input->cents('price'.$row),
            'frozen' => $input->isOn('frozen'.$row),
            'temp' => $input->temperature('temp'.$row, $site->unit),
            'thermometer' => $thermometer === '' ? null : $thermometer,
            'use_by' => $input->day('use_by'.$row),
            'accepted' => $input->text('decision'.$row) !== 'refused',
            'reason' => $reason === '' ? null : $reason,
            'place' => $place,
        ];
    }

    /** @param array<int, array{id: Uuid, product: \Verjuicer\App\Catalogue\Product\Product|null, number: string, pieces: int, grams: int, price: int|null, frozen: bool, temp: Temperature|null, thermometer: string|null, use_by: string|null, accepted: bool, reason: string|null, place: string}> $rows */
    private function store(Uuid $delivery, Supplier $supplier, array $rows): void
    {
        $by = $this->account->get();
        $now = $this->now->instant();
        $at = new \DateTimeImmutable($now->rfc3339());
        foreach ($rows as $row) {
            if ($row['product'] === null || $this->entities->find(Lot::class, $row['id']) !== null) {
                continue;
            }
            $this->entities->persist(new Lot(
                $row['id'],
                $by->site,
                $delivery,
                $supplier,
                $row['product'],
                $row['number'],
                $row['pieces'],
                $row['grams'],
                $row['price'],
                $row['frozen'],
                $row['temp'],
                $row['thermometer'],
                $row['use_by'] === null ? null : new \DateTimeImmutable($row['use_by']),
                $row['accepted'],
                $row['reason'],
                $at,
                $at,
                $by,
            ));
            $this->entities->flush();
            if ($row['accepted']) {
                $this->log->add(Uuid::v5($row['id'], 'place'), 'lot', $row['id'], $by, $now, $now, $row['frozen'] ? 'freeze' : 'cold_hold', $row['place'] === '' ? [] : ['place' => $row['place']]);
            }
        }
    }

    private function supplier(Site $site, string $name): Supplier
    {
        $supplier = $this->entities->getRepository(Supplier::class)->findOneBy(['site' => $site, 'name' => $name]);
        if ($supplier === null) {
            $supplier = new Supplier($site, $name);
            $this->entities->persist($supplier);
        }

        return $supplier;
    }

    /** @param list<int> $warm the rows that came in above the cold limit */
    private function show(FormInput $input, array $warm): Response
    {
        $site = $this->account->get()->site;

        return $this->page('receiving/delivery.html.twig', $input, [
            'site' => $site,
            'warm' => $warm,
            'cold' => $this->ruleSets->get($site->ruleSet)->receivingCold,
            'rows' => range(0, self::MOST_LOTS - 1),
            'products' => $this->products->of($site),
            'thermometers' => $this->thermometers->labels($site),
            'suppliers' => $this->entities->getRepository(Supplier::class)->findBy(['site' => $site], ['name' => 'ASC']),
        ]);
    }
}
