<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\DomCrawler\Crawler;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Wording\AssessmentJson;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Reader;
use Verjuicer\Core\Ruleset\RuleSetLibrary;
use Verjuicer\Tests\App\KitchenTestCase;

/**
 * Rest, hold, divide, cool, reheat, label, dispose: what is kept, what is refused, and what stays open until somebody
 * acts.
 */
final class AfterThePitTest extends KitchenTestCase
{
    public function testADivisionMustAddUp(): void
    {
        $path = $this->path(21);
        $page = $this->client->request('GET', $path.'/divide');
        $form = $page
            ->selectButton('Divide batch')
            ->form([
                'total' => '2.0',
                'grams0' => '1.2',
                'container0' => 'pan',
                'depth0' => '5',
                'grams1' => '0.5',
                'container1' => 'pack',
            ]);
        $page = $this->client->submit($form);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('300 g is missing', $page->filter('main')->text());
        self::assertSame('1.2', $page->filter('[name=grams0]')->attr('value'));
        $page = $this->client->submit($page->selectButton('Divide batch')->form(['total' => '1.5']));
        self::assertSelectorTextContains('#problem-total', 'The portions weigh more than the total');
        $before = $this->number('SELECT count(*) FROM batch');
        $form = $page->selectButton('Divide batch')->form(['total' => '2.0', 'reason' => 'juice and bones']);
        $this->client->submit($form);
        self::assertResponseRedirects($path);
        $this->client->submit($form);
        self::assertSame($before + 2, $this->number('SELECT count(*) FROM batch'), 'a retry divides once');
        $page = $this->client->request('GET', $path);
        self::assertStringContainsString(
            'This batch has ended',
            $page->filter('main')->text(),
            'nothing is left in it',
        );
        self::assertStringContainsString(
            'divided · total 2 kg · missing 300 g · juice and bones',
            $page->filter('#everything')->text(),
        );
        self::assertSame(
            ['211 2026', '212 2026'],
            $page->filter('#went ~ ul a')->each(static fn (Crawler $one): string => substr($one->text(), 0, 8)),
        );
    }

    public function testAPortionSharesWhatWasBeforeAndItsCorrections(): void
    {
        [$parent, $portion] = $this->divided();
        $records = $this->service(StoredRecords::class);
        // All but "closed", and the division itself, which the portion has too.
        $shared = \count($records->of($parent)->events) - 2;
        self::assertCount($shared + 2, $records->of($portion)->events);
        $page = $this->client->request('GET', '/batches/'.$portion->id->toRfc4122());
        self::assertSelectorExists('[data-rule=cook][data-verdict=met]', 'the cook was its own');
        self::assertStringContainsString(
            'Split off from 2026',
            $page->filter('#went')->closest('section')?->text() ?? '',
        );

        // A reading of the portion is its own alone.
        $this->keep($portion->tag.' 128');
        $this->client->request('GET', '/batches/'.$portion->id->toRfc4122());
        self::assertSelectorExists('[data-rule=hot_hold][data-verdict=broken]');
        $this->client->request('GET', '/batches/'.$parent->id->toRfc4122());
        self::assertSelectorNotExists('[data-rule=hot_hold][data-verdict=broken]');

        // A correction of what both share reaches both, on the page and on the board.
        $row = $this->client
            ->request('GET', '/batches/'.$parent->id->toRfc4122())
            ->filter('#everything tr:contains("203 °F")')
            ->first();
        $page = $this->client->click($row->selectLink('Correct')->link());
        $this->client->submit(
            $page->selectButton('Save correction')->form(['temp' => '103', 'reason' => 'misread']),
        );
        $lanes = $this->service(Lanes::class);
        foreach ([$parent, $portion] as $batch) {
            $corrected = array_filter(
                $records->of($batch)->events,
                static fn ($event): bool => $event->replaces !== null,
            );
            self::assertCount(1, $corrected);
            self::assertNotSame([], $lanes->of($batch)?->stages);
        }
    }

    public function testEveryPortionsExportGivesTheVerdictOfItsPage(): void
    {
        foreach ([26, 261, 262, 27, 28, 3, 9] as $tag) {
            $id = $this->words("SELECT id::text FROM batch WHERE tag = $tag ORDER BY begun_at DESC LIMIT 1");
            $this->logIn();
            $this->client->request('GET', "/batches/$id/record.json");
            $record = $this->service(Reader::class)->read((string) $this->client->getResponse()->getContent());
            $this->client->request('GET', "/batches/$id/assessment.json");
            $served = json_decode((string) $this->client->getResponse()->getContent(), true);
            self::assertIsArray($served);
            self::assertIsString($served['as_of']);
            $judged = $this->service(AssessmentJson::class)->of(
                $this->service(Assessor::class)->assess(
                    $record,
                    $this->service(RuleSetLibrary::class)->get($record->rules),
                    Instant::parse($served['as_of']),
                ),
            );
            self::assertSame($served['rules_judged'], (array) $judged['rules_judged'], "tag $tag");
        }
    }

    public function testWhatIsBrokenStaysOpenUntilSomebodyActs(): void
    {
        $path = $this->path(18);
        $page = $this->client->request('GET', '/');
        self::assertStringContainsString(
            'not cooked through: record corrective action',
            $page->filter('[data-due]')->first()->text(),
        );
        $page = $this->client->click($page->filter('[data-due] a')->first()->link());
        $form = $page->filter('#actions form')->first();
        self::assertStringContainsString('Never got there', $form->text());
        $this->client->submit($page->selectButton('Save corrective action')->form());
        self::assertSelectorTextContains('[role=alert]', 'Choose or enter a corrective action');
        $this->client->submit($page->selectButton('I\'ve got it')->form());
        self::assertStringContainsString(
            'assigned to MR',
            $this->client->request('GET', '/')->filter('[data-due]:contains("Tag 18")')->text(),
        );
        $page = $this->client->request('GET', $path);
        $this->client->submit(
            $page
                ->selectButton('Save corrective action')
                ->form(['other' => 'back on the heat to 158 °F', 'evidence' => 'T3, both pieces']),
        );
        $page = $this->client->followRedirect();
        self::assertSelectorNotExists('#actions');
        self::assertSelectorExists('[data-rule=cook][data-verdict=broken]', 'The limit is still not met');
        self::assertStringContainsString('back on the heat to 158 °F', $page->filter('#everything')->text());
        self::assertStringNotContainsString(
            'not cooked through',
            $this->client->request('GET', '/')->filter('section[aria-labelledby=due-next]')->text(),
        );
    }

    public function testARoundReadsAllThatIsHeldHotInOnePass(): void
    {
        $this->logIn('ike');
        $page = $this->client->request('GET', '/hot-round');
        self::assertSame(['18', '21'], $page->filter('.tag')->each(static fn (Crawler $tag): string => $tag->text()));
        $before = $this->number("SELECT count(*) FROM event WHERE type = 'reading'");
        $this->client->submit($page->selectButton('Save check')->form());
        self::assertStringContainsString(
            'at least one temperature',
            $this->client->getCrawler()->filter('[role=alert]')->text(),
        );
        $page = $this->client->submit($page->selectButton('Save check')->form(['t18' => '144', 't21' => '-30']));
        self::assertSelectorExists('#problem-t21', 'a slip is asked about');
        self::assertSame(
            $before + 1,
            $this->number("SELECT count(*) FROM event WHERE type = 'reading'"),
            'and holds up nothing else of the round',
        );
        $form = $page->selectButton('Save check')->form(['t21' => '141']);
        $this->client->submit($form);
        $this->client->submit($form);
        self::assertSame($before + 2, $this->number("SELECT count(*) FROM event WHERE type = 'reading'"));
        $dues = $this->client->request('GET', '/')->filter('section[aria-labelledby=due-next]')->text();
        self::assertStringContainsString('hot-holding check: cabinet', $dues, 'by the interval of its unit');
    }

    public function testALabelSaysWhatItIsUntilWhenAndLeadsToItsEntry(): void
    {
        $path = $this->path(9);
        $page = $this->client->request('GET', $path.'/label');
        $svg = $page->filter('main svg')->text();
        self::assertStringContainsString('House sausage', $svg);
        self::assertMatchesRegularExpression('/DISCARD AT \w+ \d+ \w+ \d+ \d\d:\d\d/', $svg);
        $form = $page->selectButton('Print label')->form();
        $this->client->submit($form);
        $this->client->submit($form);
        self::assertSame(1, $this->number('SELECT count(*) FROM label'), 'a retry prints once');
        self::assertStringContainsString(
            'House sausage',
            $this->client->request('GET', '/labels')->filter('main')->text(),
        );
        $cold = $this->client
            ->request('GET', $this->path(28).'/label')
            ->filter('main svg')
            ->text();
        self::assertStringContainsString('USE BY', $cold);
        self::assertStringContainsString('OUT OF BAG BY', $cold);
        $this->client->request('GET', $this->path(5).'/label.svg');
        self::assertStringContainsString('Contains wheat, soy', (string) $this->client->getResponse()->getContent());
        $this->client->request('GET', $path.'/label.pdf');
        self::assertResponseIsSuccessful();
        self::assertStringStartsWith('%PDF-', (string) $this->client->getResponse()->getContent());
    }

    /** @param array<string, string> $asked */
    #[DataProvider('questions')]
    public function testWorksOutARestOrACoolingBeforeTheFact(array $asked, string $said): void
    {
        $this->logIn('wynn');
        self::assertStringContainsString(
            $said,
            $this->client->request('GET', '/what-if', $asked)->filter('main')->text(),
        );
    }

    /** @return iterable<string, array{array<string, string>, string}> */
    public static function questions(): iterable
    {
        yield 'a whole brisket cannot cool in time' => [
            ['method' => 'walk_in', 'weight' => '5', 'start' => '150'],
            '70 °F: too late',
        ];
        yield 'a shallow ice bath can' => [['method' => 'ice_bath', 'depth' => '2.5', 'start' => '150'], '70 °F: 2'];
        yield 'a warm cabinet stays hot' => [
            ['method' => 'cabinet', 'weight' => '3', 'start' => '190', 'around' => '145'],
            'It likely stays above the hot-holding limit there',
        ];
        yield 'a rest has an end' => [
            ['method' => 'counter', 'weight' => '2', 'start' => '180'],
            'Below the hot-holding limit from',
        ];
        yield 'half a question' => [['method' => 'counter', 'start' => '180'], 'Fill in this field'];
        yield 'no method' => [['method' => 'sun', 'weight' => '2', 'start' => '180'], 'Choose one'];
        yield 'it never clears food' => [
            ['method' => 'counter', 'weight' => '2', 'start' => '180'],
            'never clears food',
        ];
    }

    public function testPortionsGoTogetherOnlyWhereBothAreSound(): void
    {
        [, $one, $other] = $this->divided();
        $mix = function (Batch $from, string $tag): Crawler {
            $form = $this->client
                ->request('GET', '/batches/'.$from->id->toRfc4122().'/steps')
                ->selectButton('Combine')
                ->form(['tag' => $tag]);

            return $this->client->submit($form);
        };
        self::assertStringContainsString('No open batch', $mix($one, '999')->filter('[role=alert]')->text());
        self::assertStringContainsString(
            'Only portions of the same product can be combined',
            $mix($one, '18')->filter('[role=alert]')->text(),
        );
        $this->keep($other->tag.' 128');
        self::assertStringContainsString(
            'Do not combine them',
            $mix($one, (string) $other->tag)->filter('[role=alert]')->text(),
        );
        $row = $this->client
            ->request('GET', '/batches/'.$other->id->toRfc4122())
            ->filter('#everything tr:contains("128 °F")')
            ->first();
        $page = $this->client->click($row->selectLink('Correct')->link());
        $this->client->submit(
            $page->selectButton('Save correction')->form(['temp' => '148', 'reason' => 'misread']),
        );
        $mix($one, (string) $other->tag);
        $page = $this->client->followRedirect();
        self::assertSelectorExists('[data-rule="house.mixed"]');
        self::assertStringContainsString('The older date counts', $page->filter('[data-rule="house.mixed"]')->text());
    }

    public function testTheYieldFollowsFromPurchaseToPlate(): void
    {
        $path = $this->path(18);
        $this->step($path, 'serve', ['weight_kg' => '2.9', 'portions' => '14']);
        $went = $this->client->request('GET', $path)->filter('#went')->closest('section')?->text() ?? '';
        self::assertStringContainsString('Bought 4.07 kg 100 %', $went, 'two of three pieces of 6.1 kg');
        self::assertStringContainsString('Served 2.9 kg 71 %', $went);
        self::assertStringContainsString('2.61 per portion (14 served)', $went);
    }

    public function testThrowingAwaySaysWhatForAndHowMuch(): void
    {
        $path = $this->path(9);
        $all = ['why' => 'safety', 'weight_kg' => '0.4', 'all' => '1', 'reason' => 'clock ran out'];
        $this->step($path, 'discard', $all);
        self::assertStringContainsString(
            'Discarded · for safety · 400 g · all of it · clock ran out',
            $this->client->request('GET', $path)->filter('#everything')->text(),
        );
        self::assertSelectorExists('[data-rule=time_control][data-verdict=met]');
    }

    public function testACoolingSaysItsDepthAndTheForecastGoesByIt(): void
    {
        $path = $this->path(3);
        $this->step($path, 'cool', ['method' => 'shallow pans', 'depth_mm' => '5', 'around' => '38']);
        $page = $this->client->request('GET', $path);
        self::assertStringContainsString(
            'Cooling · shallow pans · 5 cm deep · air 38 °F',
            $page->filter('#everything')->text(),
        );
        self::assertStringContainsString('shallow pans', $page->filter('.bg-sand')->text());
    }

    /** @param array<string, string> $fields */
    private function step(string $path, string $type, array $fields): void
    {
        $form = $this->client
            ->request('GET', $path.'/steps')
            ->filter("input[name=type][value=$type]")
            ->closest('form')
            ?->form($fields);
        self::assertNotNull($form);
        $this->client->submit($form);
        self::assertResponseStatusCodeSame(303);
    }

    /** @return array{Batch, Batch, Batch} the beef cheeks held hot, and two packs of them */
    private function divided(): array
    {
        $parent = $this->batch(21);
        $page = $this->client->request('GET', '/batches/'.$parent->id->toRfc4122().'/divide');
        $this->client->submit(
            $page
                ->selectButton('Divide batch')
                ->form([
                    'total' => '2',
                    'grams0' => '1.2',
                    'container0' => 'pan',
                    'grams1' => '0.8',
                    'container1' => 'pan',
                ]),
        );
        self::assertResponseStatusCodeSame(303);

        return [$parent, $this->batch(211), $this->batch(212)];
    }
}
