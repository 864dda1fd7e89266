<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Receiving;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Paging\PageKey;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Platform\Problem\RedisplaysForm;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Settings\SiteRules;
use Verjuicer\App\Site\Site\EventTimeParser;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Ruleset\CitedThreshold;

/** At the door: a delivery with its lots. Above the cold limit the screen says refuse, and asks for the decision. */
#[Route('/receiving')]
final class DeliveryController extends FormController implements RedisplaysForm
{
    private const MOST_LOTS = 6;

    public function __construct(
        private readonly Lots $lots,
        private readonly Products $products,
        private readonly Thermometers $thermometers,
        private readonly Deliveries $deliveries,
        private readonly SiteRules $rules,
        private readonly EventTimeParser $happened,
        private readonly CurrentAccount $account,
    ) {
    }

    #[Route('', name: 'receiving', methods: ['GET'])]
    public function list(Request $request): Response
    {
        $site = $this->account->get()->site;

        return $this->render('operations/receiving/list.html.twig', [
            'site' => $site,
            'available' => $this->lots->available($site),
            'latest' => $this->lots->latest($site, PageKey::parse($request->query->getString('after'))),
        ]);
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('/new', name: 'delivery_new', methods: ['GET'])]
    public function show(): Response
    {
        $filled = ['when' => $this->happened->now()];
        for ($row = 0; $row < self::MOST_LOTS; ++$row) {
            $filled['lot'.$row] = Uuid::v7()->toRfc4122();
        }

        return $this->again($this->blank($filled));
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('/new', name: 'delivery_keep', methods: ['POST'])]
    public function keep(Request $request): Response
    {
        $input = $this->read($request, 'delivery');
        $site = $this->account->get()->site;
        $id = $input->id();
        $supplier = $input->text('supplier', true, 80);
        $at = $input->read('when', fn (string $given): Instant => $this->happened->read($given, $site));
        $rows = $this->filled($input);
        if ($rows === []) {
            $input->refuse('product0', 'receiving.problem.no_lot');
        }
        $warm = $this->warm($input);
        $lots = [];
        foreach ($rows as $row) {
            $lots[] = $this->lot($input, $row);
            if (\in_array($row, $warm, true) && $input->text('decision'.$row) === '') {
                $input->refuse('decision'.$row, 'receiving.problem.decide');
            }
            $isDecided = \in_array($input->text('decision'.$row), ['refused', 'accepted_warm'], true);
            if ($isDecided && $input->text('reason'.$row) === '') {
                $input->refuse('reason'.$row, 'receiving.problem.reason');
            }
        }
        if (!$input->isGood() || $at === null) {
            return $this->again($input);
        }
        $whole = array_values(array_filter($lots, static fn (?ReceivedLot $lot): bool => $lot !== null));
        $this->deliveries->keep($id, $this->account->get(), $at, $supplier, $whole);

        return $this->kept('receiving.kept', 'receiving');
    }

    public function showAgain(Request $request, Problem $problem): Response
    {
        return $this->again($this->refused($request, $problem));
    }

    /** @return list<int> the rows somebody wrote in */
    private function filled(FormInput $input): array
    {
        $isFilled = static fn (int $row): bool => $input->text('product'.$row) !== ''
            || $input->text('number'.$row) !== '';

        return array_values(array_filter(range(0, self::MOST_LOTS - 1), $isFilled));
    }

    private function lot(FormInput $input, int $row): ?ReceivedLot
    {
        $site = $this->account->get()->site;
        $product = $this->products->find($site, $input->text('product'.$row));
        if ($product === null) {
            $input->refuse('product'.$row, 'new.problem.product');
        }
        $id = $input->id('lot'.$row);
        $number = $input->text('number'.$row, true, 40);
        $pieces = $input->whole('pieces'.$row, 1, 500, true);
        $grams = $input->grams('weight'.$row, true);
        $thermometer = $input->text('thermometer'.$row);
        $reason = $input->text('reason'.$row);

        return $product === null || $pieces === null || $grams === null
            ? null
            : new ReceivedLot(
                $id,
                $product,
                $number,
                $pieces,
                $grams,
                $input->cents('price'.$row),
                $input->isOn('frozen'.$row),
                $input->temperature('temp'.$row, $site->unit),
                $thermometer === '' ? null : $thermometer,
                $input->day('use_by'.$row),
                $input->text('decision'.$row) !== 'refused',
                $reason === '' ? null : $reason,
                $input->text('place'.$row, most: 40),
            );
    }

    /** @return list<int> the rows that came in above the cold limit */
    private function warm(FormInput $input): array
    {
        $limit = $this->cold()->threshold;
        $unit = $this->account->get()->site->unit;
        $isWarm = static fn (int $row): bool => !$input->isOn('frozen'.$row)
            && $input->temperature('temp'.$row, $unit)?->isAbove($limit) === true;

        return array_values(array_filter($this->filled($input), $isWarm));
    }

    private function cold(): CitedThreshold
    {
        return $this->rules->of($this->account->get()->site)->limits()->receivedCold;
    }

    private function again(FormInput $input): Response
    {
        $site = $this->account->get()->site;

        return $this->page('operations/receiving/delivery.html.twig', $input, [
            'site' => $site,
            'warm' => $this->warm($input),
            'cold' => $this->cold(),
            'rows' => range(0, self::MOST_LOTS - 1),
            'products' => $this->products->of($site),
            'thermometers' => $this->thermometers->labels($site),
            'suppliers' => $this->deliveries->suppliers($site),
        ]);
    }
}
