<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use Doctrine\DBAL\Exception\DriverException;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\DomCrawler\Form;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Event\Kinds\PitSet;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;
use Verjuicer\Tests\App\KitchenTestCase;

/**
 * From the door to off the pit: what is kept of lots, products, recipes, pits and thermometers, and what follows for
 * the batches.
 */
final class CookSideTest extends KitchenTestCase
{
    public function testADeliveryAboveTheColdLimitAsksForTheDecision(): void
    {
        $this->logIn('ike');
        $page = $this->client->request('GET', '/receiving/new');
        $form = $this->deliveryOf($page, 'Turkey breast', 'NF-950', '42.1');
        $page = $this->client->submit($form);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString(
            '42.1 is above 41 °F. Refuse it (3-202.11(A))',
            $page->filter('form [role=alert]')->text(),
        );
        self::assertSame('NF-950', $page->filter('[name=number0]')->attr('value'), 'nothing typed is lost');
        self::assertSame(0, $this->number("SELECT count(*) FROM lot WHERE number = 'NF-950'"));

        $form = $page->selectButton('Save delivery')->form(['decision0' => 'refused']);
        $page = $this->client->submit($form);
        self::assertSelectorTextContains('#problem-reason0', 'Enter a reason');
        $form = $page->selectButton('Save delivery')->form(['reason0' => 'too warm in the middle']);
        $this->client->submit($form);
        self::assertResponseRedirects('/receiving');
        $this->client->submit($form);
        self::assertSame(
            1,
            $this->number("SELECT count(*) FROM lot WHERE number = 'NF-950' AND NOT is_accepted"),
            'a retry is kept once',
        );
        $page = $this->client->request('GET', '/batches/new');
        self::assertStringNotContainsString(
            'NF-950',
            $page->filter('[name=lot]')->text(),
            'nothing is begun from a refused lot',
        );
    }

    /** @param array<string, string> $typed */
    #[DataProvider('badDeliveries')]
    public function testEveryFieldOfADeliverySaysWhatIsWrong(array $typed, string $field): void
    {
        $this->logIn();
        $page = $this->client->request('GET', '/receiving/new');
        $form = $this->deliveryOf($page, 'Duck', 'X-1', '38');
        $this->client->submit($form, $typed);
        self::assertResponseStatusCodeSame(422);
        self::assertSelectorExists('#problem-'.$field);
    }

    /** @return iterable<array{array<string, string>, string}> */
    public static function badDeliveries(): iterable
    {
        yield [['supplier' => ''], 'supplier'];
        yield [['number0' => ''], 'number0'];
        yield [['pieces0' => '0'], 'pieces0'];
        yield [['pieces0' => '2.5'], 'pieces0'];
        yield [['weight0' => '-3'], 'weight0'];
        yield [['weight0' => ''], 'weight0'];
        yield [['temp0' => 'cold'], 'temp0'];
        yield [['price0' => 'dear'], 'price0'];
        yield [['use_by0' => '2026-02-30'], 'use_by0'];
        yield [['product0' => ''], 'product0'];
        yield [['product0' => '', 'number0' => ''], 'product0'];
    }

    public function testABatchFromALotBringsItsIdentityWeightAndHistory(): void
    {
        $site = $this->logIn()->site;
        $lots = $this->service(Lots::class);
        $lot = $this->lot('NF-881');
        $page = $this->client->request('GET', '/batches/new?lot='.$lot);
        $this->client->submit($page->selectButton('Start batch')->form(['tag' => '61', 'pieces' => '3']));
        self::assertResponseStatusCodeSame(303);
        $page = $this->client->followRedirect();
        $log = $page->filter('#everything')->text();
        foreach (['Received · frozen · North Fork Poultry · lot NF-881', 'Freezing', 'Thawing', 'Prep'] as $event) {
            self::assertStringContainsString($event, $log);
        }
        self::assertStringNotContainsString('written down', $log, 'its history was written down when it happened');
        self::assertSelectorExists('[data-rule=receiving][data-verdict=met]');
        self::assertSame(
            2225,
            $this->number('SELECT raw_grams FROM batch WHERE tag = 61'),
            'of one piece, rounded down',
        );
        self::assertSame(3, $lots->find($site, $lot)?->piecesLeft, '8 came, 2 went before, 3 now');

        $page = $this->client->request('GET', '/batches/new?lot='.$lot);
        $this->client->submit($page->selectButton('Start batch')->form(['tag' => '62', 'pieces' => '4']));
        self::assertResponseStatusCodeSame(422);
        self::assertSelectorTextContains('#problem-pieces', 'The lot has fewer pieces remaining');
        $page = $this->client->request('GET', '/lots/'.$lot);
        self::assertCount(2, $page->filter('main a[href*="/batches/"]:not(.key)'), 'a lot leads to every batch');
    }

    public function testALotIsMovedAndThrownAwayWithAReasonAndNeverChanged(): void
    {
        $this->logIn('ike');
        $path = '/lots/'.$this->lot('HC-2211');
        $page = $this->client->request('GET', $path);
        $this->client->submit($page->selectButton('Save')->form(['type' => 'discard', 'pieces' => '1']));
        self::assertSelectorTextContains('#problem-reason', 'Fill in this field');
        $this->client->submit(
            $page->selectButton('Save')->form(['type' => 'discard', 'pieces' => '9', 'reason' => 'smells']),
        );
        self::assertSelectorExists('#problem-pieces');
        $this->client->submit(
            $page->selectButton('Save')->form(['type' => 'discard', 'pieces' => '1', 'reason' => 'smells']),
        );
        $page = $this->client->followRedirect();
        self::assertStringContainsString('1 · 2.43 kg', $page->filter('main')->text(), 'four came, two are in a batch');
        $this->expectException(DriverException::class);
        $this->connection()->executeStatement('UPDATE lot SET pieces = 9');
    }

    public function testASetPointOfAPitGoesIntoTheRecordOfEveryBatchInIt(): void
    {
        $this->logIn('ike');
        $pit = $this->words("SELECT id::text FROM pit WHERE name = 'Drum'");
        $page = $this->client->request('GET', '/pits/'.$pit);
        self::assertSame(
            ['5 Goat leg', '7 Lamb shoulder'],
            $page->filter('section a[href*="/batches/"]')->each(static fn (Crawler $one): string => $one->text()),
        );
        $form = $page->filter('main form')->form();
        $this->client->request('POST', '/pits/'.$pit, ['temp' => '325', 'sign' => 'set'] + $form->getValues());
        $this->client->request('POST', '/pits/'.$pit, ['temp' => '325', 'sign' => 'set'] + $form->getValues());
        self::assertSame([1, 1], array_map($this->setPoints(...), [5, 7]), 'once in each of two batches');
        self::assertSame([0, 0], array_map($this->setPoints(...), [3, 18]), 'and in no other');
        self::assertStringContainsString(
            'set to 325 °F',
            $this->client->request('GET', '/pits')->filter('main')->text(),
        );
        self::assertStringContainsString(
            'Pit set · set to 325 °F · in Drum',
            $this->client->request('GET', $this->path(7))->filter('#everything')->text(),
        );

        // What goes into it now takes oven and set point from it.
        $this->keep('18 cook Drum');
        self::assertStringContainsString(
            'Cook · convection oven · set to 325 °F · in Drum',
            $this->client->request('GET', $this->path(18))->filter('#everything')->text(),
        );
        self::assertStringContainsString(
            'There is no pit "Kiln"',
            $this->keep('18 cook Kiln')->filter('[role=alert]')->text(),
        );
    }

    public function testWhatWasWrittenDownOfAPitIsOfAllThatWasInItThenWheneverAndFromWhereverItWasEntered(): void
    {
        $this->logIn();
        // From a batch, and of a time before.
        $this->keep('7 set 240 -30');
        self::assertSame([1, 1], array_map($this->setPoints(...), [5, 7]));
        $pit = '/pits/'.$this->words("SELECT id::text FROM pit WHERE name = 'Drum'");
        self::assertStringContainsString('Set to 240 °F', $this->client->request('GET', $pit)->filter('main')->text());
        $this->keep('7 lid to spritz -25');
        self::assertStringContainsString(
            'lid opened',
            $this->client->request('GET', $this->path(5))->filter('#everything')->text(),
        );
        // Entered afterwards, a batch that was in it then has it all the same.
        $this->keep('18 cook Drum -28');
        $this->keep('18 off rack -26');
        self::assertSame(0, $this->setPoints(18), 'what was set before is the cook\'s own set point');
        self::assertStringNotContainsString(
            'lid opened',
            $this->client->request('GET', $this->path(18))->filter('#everything')->text(),
            'it was off the heat by then',
        );
        // Put right from the batch, it is put right everywhere.
        $row = $this->client
            ->request('GET', $this->path(7))
            ->filterXPath("//table[@id='everything']//tr[contains(., 'set to 240 °F')]");
        $page = $this->client->click($row->selectLink('Correct')->link());
        $this->client->submit(
            $page->selectButton('Save correction')->form(['set' => '245', 'reason' => 'misread']),
        );
        self::assertStringContainsString(
            'set to 245 °F',
            $this->client->request('GET', $this->path(5))->filter('#everything')->text(),
        );
        self::assertSame([1, 1], array_map($this->setPoints(...), [5, 7]));
        self::assertStringContainsString('Set to 245 °F', $this->client->request('GET', $pit)->filter('main')->text());
    }

    public function testTakenBackFromABatchItIsTakenBackAtThePitItWentToWhereverTheBatchIsBy(): void
    {
        $this->logIn();
        $inDrum = $this->setPoints(5);
        $this->keep('7 set 240 -30');
        $this->keep('7 off rack -5');
        $this->correct('set to 240 °F', 'Void entry');
        self::assertSame([$inDrum, 0], [$this->setPoints(5), $this->setPoints(7)], 'off the heat by then');
        // What is no pit's leaves nothing there.
        $before = $this->number('SELECT count(*) FROM site_event');
        $this->keep('5 rotate');
        $this->correct('Rotated', 'Void entry', 5);
        self::assertSame($before, $this->number('SELECT count(*) FROM site_event'));
        // Of another pit after all, it is gone from the first.
        $this->keep('5 set 241 -20');
        self::assertSame($inDrum + 1, $this->setPoints(5));
        $this->correct('set to 241 °F', 'Save correction', 5, ['pit' => 'Offset']);
        [$drum, $offset] = [$this->pit('Drum'), $this->pit('Offset')];
        self::assertStringNotContainsString('241', $this->client->request('GET', $drum)->filter('main')->text());
        self::assertStringContainsString(
            'Set to 241 °F',
            $this->client->request('GET', $offset)->filter('main')->text(),
        );
        // Taken back at the pit, it is taken back in the batch it was entered in.
        $page = $this->client->request('GET', $offset);
        $entry = $page->filterXPath("//li[contains(normalize-space(.), 'Set to 241 °F')]");
        $this->client->submit($entry->selectButton('Void entry')->form(['reason' => 'not set at all']));
        self::assertSame($inDrum, $this->setPoints(5));
        self::assertStringNotContainsString('241', $this->client->request('GET', $offset)->filter('main')->text());
        self::assertStringContainsString(
            'not set at all',
            $this->client->request('GET', $this->path(5))->filter('#everything')->text(),
        );
    }

    /** @param array<string, string> $right */
    private function correct(string $entry, string $button, int $tag = 7, array $right = []): void
    {
        $row = $this->client
            ->request('GET', $this->path($tag))
            ->filterXPath("//table[@id='everything']//tr[contains(., '$entry')]");
        $page = $this->client->click($row->selectLink('Correct')->link());
        $this->client->submit($page->selectButton($button)->form(['reason' => 'misread'] + $right));
        self::assertResponseRedirects();
    }

    private function pit(string $name): string
    {
        return '/pits/'.$this->words("SELECT id::text FROM pit WHERE name = '$name'");
    }

    private function setPoints(int $tag): int
    {
        $events = Timeline::of(
            $this->service(StoredRecords::class)->of($this->batch($tag)),
            Instant::ofEpoch(\PHP_INT_MAX),
        )->events;

        return \count(array_filter($events, static fn (Event $event): bool => $event->is(PitSet::class)));
    }

    public function testAPitTooColdForLongIsFlaggedWhereTheCrewLooks(): void
    {
        $this->logIn();
        self::assertStringContainsString(
            'Too cold for its set point since',
            $this->client->request('GET', '/pits')->filter('li:contains("Offset")')->text(),
        );
    }

    /** @param array<string, string> $typed */
    #[DataProvider('badPits')]
    public function testAPitEntryNeedsWhatItSays(array $typed, string $field): void
    {
        $this->logIn();
        $pit = $this->words("SELECT id::text FROM pit WHERE name = 'Drum'");
        $form = $this->client
            ->request('GET', '/pits/'.$pit)
            ->filter('main form')
            ->form();
        $before = $this->number('SELECT count(*) FROM site_event');
        $this->client->request('POST', '/pits/'.$pit, $typed + $form->getValues());
        self::assertResponseStatusCodeSame(422);
        self::assertSelectorExists('#problem-'.$field);
        self::assertSame($before, $this->number('SELECT count(*) FROM site_event'));
    }

    /** @return iterable<array{array<string, string>, string}> */
    public static function badPits(): iterable
    {
        yield [['sign' => 'reading'], 'temp'];
        yield [['sign' => 'reading', 'temp' => 'hot'], 'temp'];
        yield [['sign' => 'explode', 'temp' => '250'], 'sign'];
        yield [['sign' => 'fuel', 'when' => '14:30'], 'when'];
    }

    public function testInjectingIsOneTapAndChangesTheRequirement(): void
    {
        $path = $this->path(7);
        $page = $this->client->request('GET', $path);
        self::assertStringContainsString('whole roast', $page->filter('#pieces')->closest('section')?->text() ?? '');
        $this->keep('7 inject Orchard brine');
        $page = $this->client->request('GET', $path);
        $cook = $page->filter('#pieces')->closest('section')?->text() ?? '';
        self::assertStringContainsString('non-intact or ground', $cook);
        self::assertStringContainsString('The surface was carried inside, so the stricter requirement applies', $cook);
        self::assertStringContainsString(
            'Contains wheat, soy',
            $page->filter('main')->text(),
            'the brine brought allergens with it',
        );
        self::assertStringContainsString(
            'Orchard brine · 920 g · contains wheat, soy',
            $page->filter('#everything')->text(),
        );
        self::assertSelectorExists('[data-rule="house.raw_leftover"]');
        $this->tap($path, 'action/finding/house.raw_leftover');
        self::assertCount(0, $this->client->request('GET', $path)->filter('[data-rule="house.raw_leftover"]'));
    }

    public function testStuffingIsOneTapAndAsksForThePoultryRule(): void
    {
        $this->logIn();
        $this->client->submit(
            $this->client
                ->request('GET', '/batches/new?lot='.$this->lot('RR-4471'))
                ->selectButton('Start batch')
                ->form(['tag' => '63', 'pieces' => '1']),
        );
        $path = (string) $this->client->getResponse()->headers->get('Location');
        $this->tap($path, 'tenderize/stuffed/1');
        $page = $this->client->request('GET', $path);
        self::assertStringContainsString('poultry: 165 °F instantly', $page->filter('main')->text());
        $this->client->request('GET', $path.'/record.json');
        self::assertStringContainsString('"stuffed": true', (string) $this->client->getResponse()->getContent());
    }

    public function testARoundWalksThroughThePiecesAndNamesTheOneLeftOut(): void
    {
        $path = $this->path(24).'/check';
        $page = $this->client->request('GET', $path);
        self::assertSelectorTextContains('h1', '1 of 2: piece 1, flat?');
        self::assertStringContainsString('clear of the fat seam', $page->filter('main')->text());
        $this->client->submit(
            $page
                ->selectButton('Next')
                ->form(['temp' => '117', 'temp2' => '116.5', 'thermometer2' => 'T3', 'feel' => 'tight']),
        );
        $page = $this->client->followRedirect();
        self::assertSelectorTextContains('h1', '2 of 2: piece 1, point?');
        $page = $this->client->submit($page->selectButton('Next')->form(['temp' => '-38']));
        self::assertSelectorTextContains('#problem-temp', 'colder than meat in a kitchen gets');
        $page = $this->client->click($page->filter('main')->selectLink('Skip')->link());
        self::assertSelectorTextContains('h1', '1 of 2 checked');
        self::assertStringContainsString('Not checked: point', $page->filter('main')->text());
        self::assertStringContainsString(
            'flat · 117 °F · T1 · feels tight',
            $this->client->request('GET', $this->path(24))->filter('#everything')->text(),
        );
    }

    public function testAThermometerThatFailsThrowsItsReadingsIntoDoubtAtOnce(): void
    {
        $path = $this->path(12);
        $this->client->request('GET', $path);
        self::assertSelectorNotExists('[data-rule="thermometer.suspect"]');
        $thermometer = $this->words("SELECT id::text FROM thermometer WHERE label = 'T3'");
        $page = $this->client->request('GET', '/thermometers/'.$thermometer);
        self::assertStringContainsString('Water boils at 202.4 °F at 1,610 m', $page->filter('main')->text());
        $form = $page
            ->selectButton('Save check')
            ->form(['method' => 'boil', 'read' => '196.1', 'outcome' => 'retired']);
        $this->client->submit($form);
        $this->client->submit($form);
        self::assertSame(
            1,
            $this->number("SELECT count(*) FROM thermometer_check WHERE method = 'boil' AND read = '{\"f\":196.1}'"),
        );
        $page = $this->client->request('GET', '/thermometers/'.$thermometer);
        self::assertStringContainsString(
            'Turkey breast',
            $page->filter('section:contains("Readings in doubt")')->text(),
        );
        self::assertSelectorNotExists('main form', 'retired');
        $this->client->request('GET', $path);
        self::assertSelectorExists('[data-rule="thermometer.suspect"]');
        self::assertSelectorExists(
            '[data-rule=cook][data-verdict=not_shown]',
            'what it had shown is not shown any more',
        );
        self::assertNotContains('T3', $this->service(Thermometers::class)->labels($this->batch(12)->site));
        self::assertStringContainsString(
            'thermometer not recorded',
            (string) json_encode($this->echoOf('5 140')),
            'a retired one is not filled in',
        );
    }

    public function testABoilingCheckGoesByThePressureOfTheDay(): void
    {
        $this->logIn('ike');
        $thermometer = $this->words("SELECT id::text FROM thermometer WHERE label = 'T1'");
        $page = $this->client->request('GET', '/thermometers/'.$thermometer);
        $this->client->submit(
            $page->selectButton('Save check')->form(['method' => 'boil', 'read' => '95c', 'pressure' => '850']),
        );
        self::assertJsonStringEqualsJsonString(
            '{"c":95.2}',
            $this->words('SELECT expected::text FROM thermometer_check ORDER BY seq DESC LIMIT 1'),
        );
    }

    /** At 1,610 m water boils at 95 °C: by a report for sea level a thermometer that is 5 °C off would pass. */
    public function testAnAirPressureForSeaLevelIsRefused(): void
    {
        $this->logIn('ike');
        $thermometer = $this->words("SELECT id::text FROM thermometer WHERE label = 'T1'");
        $page = $this->client->request('GET', '/thermometers/'.$thermometer);
        $page = $this->client->submit($page->selectButton('Save check')->form(), [
            'method' => 'boil', 'read' => '100c', 'pressure' => '1013',
        ]);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('about 834 hPa', $page->filter('#problem-pressure')->text());
        self::assertSame('1013', $page->filter('[name=pressure]')->attr('value'), 'nothing is lost');
    }

    public function testARecipeScalesWithItsCostAndAllergens(): void
    {
        $this->logIn();
        $page = $this->client->request('GET', '/recipes/new');
        $page = $this->client->submit(
            $page
                ->selectButton('Save')
                ->form([
                    'name' => 'Harvest rub',
                    'kind' => 'rub',
                    'dose' => '3',
                    'name0' => 'Salt',
                    'parts0' => '2',
                    'price0' => '1.00',
                    'name1' => 'Sesame',
                    'parts1' => '',
                ]),
        );
        self::assertSelectorExists('#problem-parts1');
        $form = $page->selectButton('Save')->form(['parts1' => '1', 'price1' => '8.50']);
        $this->client->submit($form, ['a1_sesame' => '1']);
        self::assertResponseRedirects('/recipes');
        $page = $this->client->click(
            $this->client->request('GET', '/recipes')->filter('a:contains("Harvest rub")')->link(),
        );
        $page = $this->client->submit($page->selectButton('Scale')->form(['meat' => '10']));
        $scaled = $page->filter('aside')->text();
        foreach (['For 10 kg of meat', 'Salt 200 g', 'Sesame sesame 100 g', 'Total 300 g', 'Costs 1.05'] as $figure) {
            self::assertStringContainsString($figure, $scaled);
        }
        $form = $page->selectButton('Save')->form(['name' => 'Quarry rub']);
        $this->client->submit($form);
        self::assertSelectorTextContains('#problem-name', 'taken');
    }

    public function testProductsShowTheLawApartFromTheLiking(): void
    {
        $this->logIn();
        $page = $this->client->request('GET', '/products');
        self::assertGreaterThanOrEqual(35, $page->filter('tbody tr')->count());
        $row = $page->filter('tr:contains("Beef rib roast")')->text();
        self::assertStringContainsString('145 °F for 4 min or 158 °F instantly (3-401.11(B)(2))', $row);
        self::assertStringContainsString('120–130 °F', $row);
        $page = $this->client->click($page->filter('a:contains("Beef rib roast")')->link());
        self::assertStringContainsString('Once injected, bladed or stuffed', $page->filter('aside')->text());
        $form = $page->selectButton('Save')->form(['from' => '130', 'to' => '120']);
        $this->client->submit($form);
        self::assertSelectorExists('#problem-to');
        $this->client->submit(
            $page->selectButton('Save')->form(['to' => '128', 'spot2' => 'cap', 'where2' => 'under the cap']),
        );
        self::assertResponseRedirects('/products');
        self::assertStringContainsString(
            '120–128 °F',
            $this->client->request('GET', '/products')->filter('tr:contains("Beef rib roast")')->text(),
        );
        $page = $this->client->request('GET', '/batches/new');
        $roast = (string) $page->filter('option:contains("Beef rib roast")')->attr('value');
        $this->client->submit(
            $page->selectButton('Start batch')->form(['product' => $roast, 'tag' => '73', 'pieces' => '1']),
        );
        self::assertStringContainsString(
            '"cap"',
            $this->client->request('GET', '/log')->filter('#pad script')->text(),
            'a new spot has its key',
        );
    }

    public function testUndercookedByIntentOnlyWhereTheSiteMay(): void
    {
        $this->logIn('dell');
        self::assertSelectorExists('[name=advisory]', $this->client->request('GET', '/batches/new')->text());
        $page = $this->client->request('GET', '/site');
        $page = $this->client->submit($page->selectButton('Save')->form(), ['susceptible' => '1']);
        self::assertStringContainsString(
            'A highly susceptible population is never served undercooked food',
            $page->filter('[role=alert]')->text(),
        );
        $this->client->submit($page->selectButton('Save')->form(), [
            'advisory' => false,
            'susceptible' => false,
            'reason' => 'the menu is new',
        ]);
        self::assertResponseRedirects('/site');
        $page = $this->client->request('GET', '/batches/new');
        self::assertSelectorNotExists('[name=advisory]');
        $values = $page
            ->selectButton('Start batch')
            ->form(['tag' => '70', 'product' => (string) $page->filter('option:contains("Lamb leg")')->attr('value')])
            ->getValues();
        $page = $this->client->request('POST', '/batches/new', ['advisory' => '1'] + $values);
        self::assertStringContainsString(
            'A batch can be undercooked on purpose only with the consumer advisory, and never for a highly '
                .'susceptible population',
            $page->filter('[role=alert]')->text(),
        );
    }

    #[DataProvider('guarded')]
    public function testOnlyThoseMayWhoShould(string $login, string $method, string $path, int $status): void
    {
        $this->logIn($login);
        $this->client->request($method, $path);
        self::assertResponseStatusCodeSame($status);
    }

    /** @return iterable<array{string, string, string, int}> */
    public static function guarded(): iterable
    {
        foreach (['/receiving', '/pits', '/thermometers', '/recipes', '/products', '/kitchen'] as $path) {
            yield ['wynn', 'GET', $path, 200];
        }
        foreach (['/receiving/new', '/products/new', '/recipes/new', '/site'] as $path) {
            yield ['wynn', 'GET', $path, 403];
            yield ['wynn', 'POST', $path, 403];
        }
        yield ['ike', 'GET', '/receiving/new', 200];
        yield ['ike', 'GET', '/recipes/new', 403];
        yield ['ike', 'POST', '/pits', 403];
        yield ['mara', 'GET', '/site', 403];
        yield ['dell', 'GET', '/site', 200];
    }

    private function deliveryOf(Crawler $page, string $product, string $number, string $temp): Form
    {
        return $page->selectButton('Save delivery')->form([
            'supplier' => 'North Fork Poultry',
            'product0' => (string) $page->filter("option:contains('$product')")->attr('value'),
            'number0' => $number,
            'pieces0' => '4',
            'weight0' => '12.4',
            'temp0' => $temp,
            'price0' => '88.20',
            'use_by0' => '2026-12-01',
            'place0' => 'walk-in',
        ]);
    }

    private function lot(string $number): string
    {
        return $this->words("SELECT id::text FROM lot WHERE number = '$number'");
    }

    private function tap(string $path, string $tap): void
    {
        $form = $this->client->request('GET', $path.'/steps')->filter('form[aria-label="Quick steps"]')->form();
        $this->client->request('POST', $path.'/step', ['tap' => $tap] + $form->getValues());
        self::assertResponseStatusCodeSame(303);
    }

    private function echoOf(string $line): mixed
    {
        $this->client->request('GET', '/log/echo', ['line' => $line]);

        return json_decode((string) $this->client->getResponse()->getContent(), true);
    }
}
