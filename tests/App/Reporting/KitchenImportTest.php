<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Reporting;

use PHPUnit\Framework\Attributes\DataProvider;
use Verjuicer\App\Ledger\Chain\ChainVerifier;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Reporting\Exchange\KitchenExport;
use Verjuicer\App\Reporting\Exchange\KitchenImport;
use Verjuicer\Tests\App\KitchenTestCase;

/** What a kitchen has besides its records, out and in: known by name, refused with its place, never half of it. */
final class KitchenImportTest extends KitchenTestCase
{
    public function testIsKnownWhereItCameFrom(): void
    {
        $by = $this->logIn('dell');
        $json = $this->service(KitchenExport::class)->json($by->site);
        self::assertTrue(KitchenImport::isOne($json));
        $report = $this->service(KitchenImport::class)->import($json, $by, false);
        self::assertSame([0, []], [$report->new, $report->refused]);
        self::assertGreaterThan(50, $report->known);
    }

    /** @param array<string, mixed> $parts */
    #[DataProvider('wrong')]
    public function testWhatIsWrongIsRefusedWithItsPlaceAndNothingIsTaken(array $parts, string $why): void
    {
        $by = $this->logIn('dell');
        $good = ['suppliers' => [['name' => 'Dry Creek Farm']], 'settings' => new \stdClass()];
        $json = (string) json_encode(['format' => KitchenExport::FORMAT, ...$parts + $good]);
        $report = $this->service(KitchenImport::class)->import($json, $by, false);
        self::assertStringContainsString($why, implode(' ', array_column($report->refused, 'why')));
        self::assertSame(0, $this->number("SELECT count(*) FROM supplier WHERE name = 'Dry Creek Farm'"));
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function wrong(): iterable
    {
        $product = ['name' => 'x', 'animal' => 'lamb', 'form' => 'roast', 'integrity' => 'intact'];
        $recipe = ['name' => 'x', 'kind' => 'rub', 'grams_per_kg' => 1];
        $check = ['method' => 'ice', 'expected' => ['f' => 32], 'read' => ['f' => 32]];
        $id = '01a21219-0000-7000-8000-000000000009';
        $lot = ['id' => $id, 'delivery' => $id, 'supplier' => 's', 'product' => 'Nothing here', 'number' => '1'];
        yield 'another format' => [['format' => 'verjuicer-site/9'], 'it does not say "format"'];
        yield 'no name' => [['pits' => [['oven' => 'convection']]], '/pits/0/name'];
        yield 'an oven of no kind' => [['pits' => [['name' => 'x', 'oven' => 'x']]], '/pits/0/oven'];
        yield 'an animal of no kind' => [['products' => [['animal' => 'unicorn'] + $product]], '/products/0/animal'];
        yield 'doneness in no unit' => [
            ['products' => [$product + ['doneness' => ['from' => ['x' => 1], 'to' => ['f' => 2]]]]],
            '/products/0/doneness/from',
        ];
        yield 'a list that is none' => [['recipes' => 'rub'], '/recipes'];
        yield 'parts that are no number' => [
            ['recipes' => [$recipe + ['ingredients' => [['name' => 'y', 'parts' => 'z']]]]],
            '/recipes/0/ingredients/0/parts',
        ];
        yield 'a check ahead of now' => [
            ['thermometers' => [
                ['label' => 'X1', 'kind' => 'instant', 'checks' => [['at' => '2031-01-01T00:00:00Z'] + $check]],
            ]],
            '/thermometers/0/checks/0/at',
        ];
        yield 'a check that came to nothing known' => [
            ['thermometers' => [
                ['label' => 'X1', 'kind' => 'instant', 'checks' => [['outcome' => 'fine'] + $check]],
            ]],
            '/thermometers/0/checks/0/outcome',
        ];
        $meal = ['name' => 'Supper', 'at' => '2026-12-20T00:00:00Z', 'guests' => 20];
        $dish = ['product' => 'Lamb shoulder', 'service' => 0];
        yield 'a plan without a meal' => [['plans' => [['name' => 'x', 'services' => []]]], '/plans/0/services'];
        yield 'a dish of another shape' => [
            ['plans' => [['name' => 'x', 'services' => [$meal], 'dishes' => [$dish + ['facts' => ['portions' => 3]]]]]],
            '/plans/0/dishes/0/facts',
        ];
        yield 'a dish for no meal of it' => [
            ['plans' => [['name' => 'x', 'services' => [$meal], 'dishes' => [['service' => 1] + $dish]]]],
            '/plans/0/dishes/0/service',
        ];
        yield 'a lot of no product' => [['lots' => [$lot + ['at' => '2026-11-20T00:00:00Z']]], '/lots/0/product'];
        yield 'a lot without an id' => [
            ['lots' => [['id' => '7', 'at' => '2026-11-20T00:00:00Z'] + $lot]],
            'must be UUIDs',
        ];
        $entry = ['id' => $id, 'at' => '2026-11-21T00:00:00Z', 'type' => 'discard', 'members' => ['pieces' => 5]];
        yield 'more thrown away than came in' => [
            ['products' => [['name' => 'Nothing here'] + $product], 'lots' => [
                ['at' => '2026-11-20T00:00:00Z', 'pieces' => 4, 'grams' => 9000, 'log' => [$entry]] + $lot,
            ]],
            '/lots/0/log/0/members',
        ];
        yield 'a procedure of no kind' => [
            ['procedures' => [['kind' => 'x', 'number' => 'P-1']]],
            '/procedures/0/kind',
        ];
    }

    public function testIsTakenInOnThePageWithWhatItSaysOfItself(): void
    {
        $by = $this->logIn('dell');
        $text = (string) json_encode([
            'format' => KitchenExport::FORMAT,
            'settings' => ['name' => 'Somewhere else'],
            'suppliers' => [['name' => 'Dry Creek Farm']],
            'thermometers' => [['label' => 'X1', 'kind' => 'leave_in', 'checks' => [
                [
                    'at' => '2026-11-20T12:00:00Z', 'method' => 'ice', 'expected' => ['f' => 32],
                    'read' => ['f' => 36], 'outcome' => 'retired',
                ],
            ], 'retired_at' => '2026-11-20T12:00:00Z']],
            'lots' => [[
                'id' => '01a21219-0000-7000-8000-000000000009', 'delivery' => '01a21219-0000-7000-8000-00000000000a',
                'supplier' => 'Dry Creek Farm', 'product' => 'Mutton ham', 'number' => 'DC-7', 'pieces' => 4,
                'grams' => 20000,
                'price_cents' => 900, 'accepted' => true, 'at' => '2026-11-20T12:00:00Z', 'use_by' => '2026-12-01',
                'log' => [[
                    'id' => '01a21219-0000-7000-8000-00000000000b', 'at' => '2026-11-21T12:00:00Z', 'by' => 'QQ',
                    'type' => 'discard', 'members' => ['pieces' => 1, 'reason' => 'dropped'],
                ]],
            ]],
            'procedures' => [
                ['kind' => 'recall', 'number' => 'P-99', 'body' => 'Call.', 'reason' => 'first', 'by' => 'QQ'],
            ],
        ]);
        $form = $this->client->request('GET', '/exchange')->selectButton('Preview import')->form();
        $page = $this->client->request('POST', '/exchange', ['what' => 'site', 'text' => $text] + $form->getValues());
        self::assertStringContainsString('6 new, 1 already exist', $page->filter('main')->text());
        $this->client->submit($page->selectButton('Import')->form());
        self::assertStringContainsString('6 imported', $this->client->followRedirect()->filter('main')->text());
        self::assertSame('Quarry Lane Smokehouse', $this->words('SELECT name FROM site'), 'at work it keeps its own');
        self::assertSame(
            'Taken in from a file, which says: first (QQ, –)',
            $this->words("SELECT reason FROM procedure_version WHERE number = 'P-99'"),
        );
        $lot = $this->words("SELECT id FROM lot WHERE number = 'DC-7' AND price_cents = 900");
        self::assertSame(3, $this->service(Lots::class)->find($by->site, $lot)?->piecesLeft, 'one was thrown away');
        $outcome = 'SELECT c.outcome FROM thermometer_check c JOIN thermometer t ON t.id = thermometer_id';
        self::assertSame('retired', $this->words("$outcome WHERE t.label = 'X1'"));
        $retired = "SELECT count(*) FROM thermometer WHERE label = 'X1' AND retired_at IS NOT NULL";
        self::assertSame(1, $this->number($retired));
        self::assertNull($this->service(ChainVerifier::class)->firstBreak($by->site));
    }
}
