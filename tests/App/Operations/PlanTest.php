<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use PHPUnit\Framework\Attributes\DataProvider;
use Sabre\VObject\Component\VCalendar;
use Sabre\VObject\Component\VEvent;
use Sabre\VObject\Reader;
use Symfony\Component\DomCrawler\Crawler;
use Verjuicer\Tests\App\KitchenTestCase;

/** A supper for forty on Thursday at half past six, planned on Tuesday at two. */
final class PlanTest extends KitchenTestCase
{
    private const MEAL = '2026-11-26T18:30';
    private const PLAN = "SELECT id FROM plan WHERE name = 'Supper'";
    private const DISH = "SELECT d.id FROM plan_dish d JOIN plan p ON p.id = d.plan_id WHERE p.name = 'Supper'";

    public function testFromGuestsToWhatHasToBeBought(): void
    {
        $this->begin();
        $page = $this->add('Lamb shoulder', ['plate' => '0.14']);
        $row = $page->filter('table tbody tr')->text();
        self::assertStringContainsString('40 × 140 g', $row);
        self::assertStringContainsString('5.6 kg served', $row);
        // Between 45 and 61 % of what was bought: 9.15 to 12.5 kg, in pieces of the lot there is.
        self::assertStringContainsString('45–61 %', $row);
        self::assertStringContainsString('needs 9.15 kg to 12.5 kg', $row);
        self::assertStringContainsString('6 × 2.32 kg', $row);
        self::assertMatchesRegularExpression('/4\.64 kg 9\.26 kg short/', $row);
        $short = $page->filter('#short')->closest('section')?->text() ?? '';
        self::assertStringContainsString('Hollow Creek Farm', $short);
        self::assertStringContainsString('per guest', $short);
    }

    public function testTheScheduleIsWorkedBackAndSaysWhatBreaks(): void
    {
        $this->begin();
        $this->add('Lamb shoulder');
        $this->shape('Lamb shoulder', ['hold' => '', 'rest' => 'rack']);
        $page = $this->schedule();
        self::assertStringContainsString(
            'drops below the hot-holding limit before slicing',
            $page->filter('.strip-words')->text(),
        );
        self::assertStringContainsString('Trim and season: Lamb shoulder', $page->filter('aside')->text());
        self::assertStringContainsString('Into the holding cabinet', $page->filter('aside')->text());
        $form = $page->selectButton('Use this option')->form();
        $this->client->followRedirects();
        $page = $this->client->submit($form);
        self::assertStringNotContainsString('below the hot-holding limit', $page->filter('.strip-words')->text());
        self::assertSame('cabinet', $this->fact('hold'));
    }

    public function testADishThatWouldMissALimitIsNotStartedByOneTap(): void
    {
        $this->begin();
        $this->add('Lamb shoulder');
        $this->add('Goat leg', ['portions' => '8']);
        $this->shape('Lamb shoulder', ['hold' => '', 'rest' => 'rack']);
        $aside = $this->schedule()->filter('aside');
        $held = $aside->filter('[data-held]')->text();
        self::assertStringContainsString('Lamb shoulder needs a decision first', $held);
        $this->client->followRedirects();
        $this->client->submit($aside->filter('.key-main')->form());
        $started = 'SELECT count(*)::int FROM plan_dish d JOIN product p ON p.id = d.product_id
            WHERE d.batch_id IS NOT NULL AND d.plan_id = ('.self::PLAN.') AND p.name = ';
        self::assertSame([1, 0], [$this->number("$started 'Goat leg'"), $this->number("$started 'Lamb shoulder'")]);
        // Nothing is left that may be started so: a page of a moment before is told, not thanked.
        $this->client->submit($aside->filter('.key-main')->form());
        self::assertResponseStatusCodeSame(422);
        $page = $this->client->click($this->schedule()->filter('[data-held] a')->link());
        $form = $page->selectButton('Start this batch now')->form();
        $page = $this->client->submit($form);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('will likely miss a food-safety limit', $page->filter('#problems')->text());
        self::assertSame(0, $this->number("$started 'Lamb shoulder'"));
        $this->client->submit($page->selectButton('Start this batch now')->form(['sure' => '1']));
        self::assertSame(1, $this->number("$started 'Lamb shoulder'"));
    }

    public function testMovingADishMovesAllThatDependsOnIt(): void
    {
        $this->begin();
        $this->add('Lamb shoulder');
        $before = $this->steps();
        $this->client->followRedirects();
        $this->client->submit($this->schedule()->filter('button.nudge[value="15"]')->form());
        $after = $this->steps();
        self::assertSame(array_keys($before), array_keys($after));
        foreach ($after as $step => $at) {
            self::assertEqualsWithDelta($step === 'slice' ? 0 : 900, $at - $before[$step], 300, $step);
        }
        $page = $this->schedule();
        $uri = $page->filter('form[action$="/move"]')->attr('action') ?? '';
        $token = $page->filter('[name="_token"]')->attr('value');
        $page = $this->client->request('POST', $uri, ['_token' => $token, 'by' => '600']);
        self::assertStringContainsString('late, almost certain, over 9 in 10', $page->filter('.strip-words')->text());
        self::assertStringContainsString('Load at', $page->filter('aside')->text());
        foreach (['', 'soon', '99999', '1.5'] as $wrong) {
            $this->client->request('POST', $uri, ['_token' => $token, 'by' => $wrong]);
            self::assertResponseStatusCodeSame(422);
        }
    }

    public function testBecomesRealFromItsLotAndAChangeOfPlanIsNoChangeOfRecord(): void
    {
        $this->begin();
        $this->add('Goat leg', ['portions' => '8']);
        $recorded = 'SELECT ((SELECT count(*) FROM event) + (SELECT count(*) FROM chain_link))::int';
        $before = $this->number($recorded);
        $this->client->followRedirects();
        $this->client->submit($this->schedule()->filter('button.nudge[value="-15"]')->form());
        $this->shape('Goat leg', ['set' => '275', 'pit' => 'Drum']);
        self::assertSame($before, $this->number($recorded));
        $this->client->followRedirects();
        $page = $this->client->submit($this->schedule()->filter('aside .key-main')->form());
        self::assertStringContainsString('The batches are started', $page->text());
        $batch = $this->words('SELECT batch_id FROM plan_dish WHERE id = ('.self::DISH.')');
        self::assertSame(2, $this->number("SELECT pieces FROM batch WHERE id = '$batch'"));
        self::assertSame(1, $this->number("SELECT count(*)::int FROM batch_lot WHERE batch_id = '$batch'"));
        self::assertSame(
            'note,note',
            $this->words("SELECT string_agg(type, ',' ORDER BY type) FROM event
                WHERE batch_id = '$batch' AND type IN ('prep', 'note')"),
        );
        // Off by the time it has to rest and be sliced.
        self::assertSame(
            '2026-11-27T00:30:00Z',
            $this->words(self::wanted($batch)),
        );
        $events = $this->number("SELECT count(*)::int FROM event WHERE batch_id = '$batch'");
        // Once only; and its plan stands as it was.
        $dish = $this->words("SELECT id FROM plan_dish WHERE batch_id = '$batch'");
        $plan = $this->words(self::PLAN);
        $form = $this->client->request('GET', "/plans/$plan/dishes/$dish");
        self::assertCount(0, $form->selectButton('Save'));
        $token = $form->filter('[name="_token"]')->attr('value');
        $this->client->request('POST', "/plans/$plan/dishes/$dish/batch", ['_token' => $token]);
        self::assertSame('/batches/'.$batch, $this->client->getRequest()->getPathInfo());
        foreach (['move' => ['by' => '15'], 'mend' => ['way' => 'hotter'], 'remove' => [], '' => []] as $do => $sent) {
            $this->client->request('POST', rtrim("/plans/$plan/dishes/$dish/$do", '/'), $sent + ['_token' => $token]);
            self::assertResponseStatusCodeSame(422, $do);
        }
        self::assertSame($events, $this->number("SELECT count(*)::int FROM event WHERE batch_id = '$batch'"));
        self::assertStringContainsString('planned off the heat', $this->client->request('GET', '/')->html());
        $after = $this->client->request('GET', "/plans/$plan/after")->filter('tbody')->text();
        self::assertStringContainsString('Goat leg not yet planned', $after);
    }

    public function testWhatRunsLateIsServedLaterAndItsRecordSaysSo(): void
    {
        $this->begin();
        $this->add('Lamb shoulder', ['portions' => '20']);
        $plan = $this->words(self::PLAN);
        $dish = $this->words(self::DISH);
        $batch = $this->batch(7)->id->toRfc4122();
        $this->asOwner();
        // As if tag 7, on the heat for five hours, had been planned for half past five.
        $moment = (new \DateTimeImmutable('2026-11-25T00:30:00Z'))->getTimestamp();
        $this->connection()->executeStatement('UPDATE plan_dish SET batch_id = NULL');
        $becomes = "UPDATE plan_dish SET batch_id = '$batch', planned = ? WHERE id = '$dish'";
        $this->connection()->executeStatement($becomes, [
            json_encode(['load' => $moment - 27_300, 'earliest' => $moment - 13_800, 'likely' => $moment - 6600,
                'latest' => $moment - 1200, 'serve' => $moment, 'served' => 2800]),
        ]);
        $this->connection()->executeStatement(
            "UPDATE plan SET services = jsonb_set(services::jsonb, '{0,at}', '$moment')::json WHERE id = '$plan'",
        );
        $this->connection()->executeStatement('SET ROLE verjuicer_app');
        $page = $this->schedule();
        self::assertStringContainsString('7 Lamb shoulder', $page->filter('aside')->text());
        self::assertStringContainsString('pit at 275 °F', $page->filter('aside')->text());
        self::assertCount(1, $page->filter('[data-strip] .s-planned'));
        $this->client->followRedirects();
        $moved = 'SELECT (services::jsonb #>> \'{0,at}\')::int FROM plan WHERE id = \''.$plan."'";
        $page = $this->client->submit($page->filter('form[action$="/later"] button')->form());
        self::assertGreaterThan($moment, $this->number($moved));
        self::assertStringContainsString('The serving time is changed', $page->text());
        self::assertStringNotContainsString('▲', $page->filter('.strip-words')->text());
        self::assertLessThan($this->number($moved), strtotime($this->words(self::wanted($batch))));
        self::assertGreaterThan($moment - 3600, strtotime($this->words(self::wanted($batch))));
        self::assertStringContainsString("/plans/$plan/dishes/$dish", $page->html());
    }

    public function testAMealIsWithinAYearAndNearTheOthersOfItsPlan(): void
    {
        $this->begin();
        $form = fn (): \Symfony\Component\DomCrawler\Form => $this->client
            ->request('GET', '/plans/'.$this->words(self::PLAN))
            ->filter('form[action$="/meals"]')
            ->last()
            ->form();
        foreach (['2020-01-01T12:00', '9999-12-31T12:00', '2026-12-20T12:00'] as $at) {
            $this->client->submit($form(), ['name' => 'Another', 'at' => $at, 'guests' => '10']);
            self::assertResponseStatusCodeSame(422);
        }
        $this->client->submit($form(), ['name' => 'Brunch', 'at' => '2026-11-27T11:00', 'guests' => '10']);
        self::assertResponseStatusCodeSame(303);
        self::assertSame(2, $this->number('SELECT json_array_length(services) FROM plan WHERE id = ('.self::PLAN.')'));
    }

    public function testAProductMaySayWhatIsServedOfIt(): void
    {
        $this->begin();
        $lamb = $this->words("SELECT id FROM product WHERE name = 'Lamb shoulder'");
        $form = fn (): \Symfony\Component\DomCrawler\Form => $this->client
            ->request('GET', "/products/$lamb")
            ->selectButton('Save')
            ->form();
        foreach ([['50', ''], ['60', '50'], ['2', '50']] as [$least, $most]) {
            $this->client->submit($form(), ['yield_least' => $least, 'yield_most' => $most]);
            self::assertResponseStatusCodeSame(422);
        }
        $this->client->submit($form(), ['yield_least' => '50', 'yield_most' => '70']);
        self::assertResponseStatusCodeSame(303);
        $row = $this->add('Lamb shoulder', ['plate' => '0.14'])->filter('table tbody tr')->text();
        self::assertStringContainsString('50–70 % as the product says', $row);
        self::assertStringContainsString('needs 8 kg to 11.2 kg', $row);
    }

    public function testWhatIsInThePitNowIsInTheWayOfWhatIsLoadedBeside(): void
    {
        $this->begin();
        $this->add('Lamb shoulder', ['portions' => '10']);
        $this->shape('Lamb shoulder', ['pit' => 'Offset', 'set' => '225', 'load' => '2026-11-24T14:30']);
        $page = $this->schedule();
        self::assertStringContainsString('has the Offset at 325 °F', $page->filter('.strip-words')->text());
        self::assertMatchesRegularExpression('/\d+ [A-Z]/', $page->filter('#pits')->closest('section')?->text() ?? '');
    }

    public function testListsAndACalendar(): void
    {
        $this->begin();
        $this->add('Lamb shoulder');
        $plan = $this->words(self::PLAN);
        $lists = $this->client->request('GET', "/plans/$plan/lists");
        self::assertCount(3, $lists->filter('main section'));
        self::assertStringContainsString('Light the fire', $lists->text());
        $calendar = $this->calendar();
        self::assertResponseHeaderSame('Content-Type', 'text/calendar; charset=utf-8');
        self::assertSame([], $calendar->validate());
        $at = [];
        foreach ($calendar->select('VEVENT') as $event) {
            \assert($event instanceof VEvent);
            $at[(string) $event->__get('SUMMARY')] = (string) $event->__get('DTSTART');
        }
        self::assertSame('20261127T013000Z', $at['Supper']);
        self::assertArrayHasKey('Light the fire: Lamb shoulder × 6', $at);
    }

    /** @param array<string, string> $typed */
    #[DataProvider('wrong')]
    public function testBadInputComesBackWithWhatToDo(array $typed, string $problem): void
    {
        $this->begin();
        $this->add('Lamb shoulder');
        $form = $this->dishForm('Lamb shoulder');
        $page = $this->client->submit($form, $typed);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString($problem, $page->filter('.text-ember')->text());
        foreach ($typed as $field => $value) {
            $node = $page->filter("[name=\"$field\"]");
            self::assertSame($value, $node->nodeName() === 'select' ? $value : $node->attr('value'), 'nothing is lost');
        }
    }

    /** @return iterable<string, array{array<string, string>, string}> */
    public static function wrong(): iterable
    {
        yield 'no plates' => [['portions' => '0'], 'whole number'];
        yield 'a length nobody can read' => [['resting' => 'a while'], 'hours and minutes'];
        yield 'years before its meal' => [['load' => '2020-01-01', 'load_time' => '10:00'], 'at most two weeks'];
        yield 'after its meal' => [
            ['load' => '2026-11-27', 'load_time' => '10:00'],
            'Enter a time before the meal, at most two weeks',
        ];
        yield 'a day without a time' => [['load' => '2026-11-27', 'load_time' => ''], 'Fill in this field'];
        yield 'a moment that is none' => [['load' => 'noon'], 'Enter a day and a time, such as 2026-11-28 18:30'];
        yield 'wrapped, and nobody says when' => [
            ['wrap' => 'foil', 'wrap_at' => ''],
            'Enter when to wrap: a temperature or a time',
        ];
        yield 'a temperature' => [['set' => 'hot'], 'temperature'];
    }

    public function testOwnCooksAreHeardInTheNextPlan(): void
    {
        $this->begin();
        $this->add('House sausage');
        $prices = fn (): string => $this->dishPage('House sausage')->filter(
            'section:contains("Pit temperature and time")',
        )->text();
        self::assertStringContainsString('Typical times: fewer than three past cooks with weight and times', $prices());
        $this->asOwner();
        foreach ([0, 1, 2, 3] as $days) {
            $this->connection()->executeStatement(
                <<<'SQL'
                WITH b AS (
                    INSERT INTO batch (id, site_id, tag, code, product_name, animal, form, integrity, pieces, raw_grams,
                        is_stuffed, is_wild, has_advisory, rule_set, begun_at, begun_by_id)
                    SELECT gen_random_uuid(), site_id, 900, 'own-' || :days, 'House sausage', 'pork', 'comminuted',
                        'non_intact', 10, 140, false, false, false, rule_set, begun_at - interval '9 days', begun_by_id
                    FROM batch WHERE tag = 7 RETURNING id, begun_by_id, begun_at
                )
                INSERT INTO event (id, batch_id, at, recorded_at, account_id, initials, type, members)
                SELECT gen_random_uuid(), b.id, b.begun_at + t.after, '2026-11-24T21:00:00Z', b.begun_by_id, 'MR',
                    t.type, t.members::jsonb
                FROM b, (VALUES (interval '0', 'cook', '{"set": {"f": 250}}'),
                    (interval '5 hours', 'rest', '{}'), (interval '6 hours', 'note',
                    '{"step": "weighed", "total_kg": 1.26}')) t (after, type, members)
                SQL,
                ['days' => (string) $days],
            );
        }
        $this->connection()->executeStatement('SET ROLE verjuicer_app');
        self::assertMatchesRegularExpression('/Your last \d cooks took 1\d\d % of the typical time/', $prices());
        $row = $this->client->request('GET', '/plans/'.$this->words(self::PLAN))->filter('tbody tr')->text();
        self::assertStringContainsString('90–90 %', $row);
        self::assertStringContainsString('4 past batches', $row);
        $this->client->followRedirects();
        $page = $this->client->submit(
            $this->dishPage('House sausage')->selectButton('Use only cooks from now on')->form(),
        );
        self::assertStringContainsString(
            'Typical times: fewer than three past cooks with weight and times',
            $page->filter('section:contains("Pit temperature and time")')->text(),
        );
        $page = $this->client->submit($page->selectButton('Use all past cooks')->form());
        self::assertStringContainsString(
            'Your last',
            $page->filter('section:contains("Pit temperature and time")')->text(),
        );
    }

    public function testAPagesStatementsDoNotGrowWithTheDishes(): void
    {
        $this->begin();
        $this->add('Lamb shoulder');
        $plan = $this->words(self::PLAN);
        $few = $this->statements(fn () => $this->client->request('GET', "/plans/$plan/schedule"));
        foreach (range(1, 4) as $one) {
            $this->add('Lamb shoulder');
        }
        self::assertLessThanOrEqual(
            $few + 4,
            $this->statements(fn () => $this->client->request('GET', "/plans/$plan/schedule")),
        );
    }

    private function begin(): void
    {
        $this->logIn();
        $form = $this->client->request('GET', '/plans')->selectButton('Start plan')->form();
        $this->client->submit($form, ['name' => 'Supper', 'at' => self::MEAL, 'guests' => '40']);
        self::assertResponseStatusCodeSame(303);
    }

    private static function wanted(string $batch): string
    {
        return "SELECT members->>'ready_by' FROM event WHERE batch_id = '$batch'
            AND members->>'ready_by' IS NOT NULL ORDER BY seq DESC LIMIT 1";
    }

    /** @param array<string, string> $more */
    private function add(string $product, array $more = []): Crawler
    {
        $page = $this->client->request('GET', '/plans/'.$this->words(self::PLAN));
        $id = $this->words("SELECT id FROM product WHERE name = '$product'");
        $this->client->submit($page->selectButton('Add')->form(), ['product' => $id] + $more);
        self::assertResponseStatusCodeSame(303);

        return $this->client->followRedirect();
    }

    private function schedule(): Crawler
    {
        return $this->client->request('GET', '/plans/'.$this->words(self::PLAN).'/schedule');
    }

    private function dishPage(string $product): Crawler
    {
        $dish = $this->words(self::DISH." AND d.product_id = (SELECT id FROM product WHERE name = '$product') LIMIT 1");

        return $this->client->request('GET', '/plans/'.$this->words(self::PLAN).'/dishes/'.$dish);
    }

    private function dishForm(string $product): \Symfony\Component\DomCrawler\Form
    {
        return $this->dishPage($product)->filter('#dish-form button')->form();
    }

    /** @param array<string, string> $typed */
    private function shape(string $product, array $typed): void
    {
        $this->client->followRedirects(false);
        $this->client->submit($this->dishForm($product), $typed);
        self::assertResponseStatusCodeSame(303);
    }

    private function fact(string $name): string
    {
        return $this->words("SELECT facts->>'$name' FROM plan_dish WHERE id = (".self::DISH.')');
    }

    /** @return array<string, int> moments by what is done, as the calendar has them */
    private function steps(): array
    {
        $steps = [];
        foreach ($this->calendar()->select('VEVENT') as $event) {
            \assert($event instanceof VEvent);
            if (preg_match('/^(?!meal).*-([a-z]+)@/', (string) $event->__get('UID'), $part) === 1) {
                $at = \DateTimeImmutable::createFromFormat('Ymd\THis\Z', (string) $event->__get('DTSTART'));
                self::assertNotFalse($at);
                $steps[$part[1]] = $at->getTimestamp();
            }
        }

        return $steps;
    }

    private function calendar(): VCalendar
    {
        $this->client->request('GET', '/plans/'.$this->words(self::PLAN).'/calendar.ics');
        $calendar = Reader::read((string) $this->client->getResponse()->getContent());
        self::assertInstanceOf(VCalendar::class, $calendar);

        return $calendar;
    }
}
