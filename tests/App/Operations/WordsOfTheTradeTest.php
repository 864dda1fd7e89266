<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use PHPUnit\Framework\Attributes\DataProvider;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\Core\Assess\Evidence\LowRows;
use Verjuicer\Tests\App\KitchenTestCase;

/** What is said at a pit is understood, told back, and stands in the record in those words. */
final class WordsOfTheTradeTest extends KitchenTestCase
{
    #[DataProvider('sayings')]
    public function testIsSaidAndShown(string $line, string $shown): void
    {
        $this->logIn();
        $page = $this->keep($line);
        if ($this->client->getResponse()->getStatusCode() === 422) {
            $this->client->submit($page->selectButton('Yes, save it')->form());
        }
        self::assertResponseRedirects();
        self::assertStringContainsString(
            $shown,
            $this->client->request('GET', $this->path((int) $line))->filter('#everything')->text(),
        );
    }

    /** @return iterable<string, array{string, string}> */
    public static function sayings(): iterable
    {
        yield 'glaze' => ['7 glaze Butter sauce', 'Sauced · Butter sauce'];
        yield 'unwrap' => ['7 unwrap', 'Unwrapped'];
        yield 'vent, and its end' => ['3 vent end', 'Vented · finished'];
        yield 'rotate' => ['7 rotate', 'Rotated'];
        yield 'carve' => ['3 carve', 'Sliced'];
        yield 'chop' => ['3 chop', 'Pulled'];
        yield 'sear' => [
            '3 sear 450',
            'over direct heat, no oven: only the full roast temperature counts from here',
        ];
        yield 'braise' => [
            '3 braise Oven 300',
            'Cook · still oven · set to 300 °F · in Oven · braised in a covered pan',
        ];
        yield 'fuel' => ['7 fuel two baskets', 'fuel added'];
        yield 'wood' => ['7 wood', 'wood added'];
        yield 'coals' => ['7 stir', 'coals stirred'];
        yield 'lid' => ['7 lid', 'lid opened'];
        yield 'water' => ['7 water', 'water pan filled'];
        yield 'a holding unit' => ['21 unit 150 60 % humid', 'holding unit set'];
        yield 'outdoors' => ['7 outside 28', 'outdoors · 28 °F'];
        yield 'loaded' => ['21 loaded carrier 1', 'loaded · carrier 1'];
        yield 'on the way' => ['21 onway', 'on the way'];
        yield 'arrived' => ['21 arrived the hall', 'arrived · the hall'];
        yield 'another thermometer' => ['7 swap T1 for T3', 'thermometer swapped'];
    }

    public function testASearOverDirectHeatIsInNoOvenSoThatTheLowRowsOfTheRoastClose(): void
    {
        $this->logIn();
        $this->keep('3 sear 450 Oven');
        self::assertResponseRedirects();
        $kept = $this->words("SELECT members::text FROM event WHERE type = 'cook' ORDER BY seq DESC LIMIT 1");
        self::assertJsonStringEqualsJsonString(
            '{"set":{"f":450},"pit":"Oven","way":"sear"}',
            $kept,
            'the oven it stands beside is not its own',
        );
        self::assertSame(
            LowRows::Closed,
            $this->service(Assessments::class)->of($this->batch(3))->cooks[0]->window->lowRows,
        );
    }

    public function testFreeWordsAreTickedOnceAndRememberedAndNothingUnknownIsCalledFree(): void
    {
        $this->logIn();
        $label = fn (): string => $this->client
            ->request('GET', $this->path(3).'/label')
            ->filter('main')
            ->text();
        $page = $this->keep('3 sauce house red');
        self::assertStringContainsString('"house red"', $page->filter('[role=alert]')->text());
        $this->client->submit($page->selectButton('Save these allergens')->form(['allergen_soy' => '1']));
        self::assertResponseRedirects();
        self::assertStringContainsString(
            'Sauced · house red',
            $this->client->request('GET', $this->path(3))->filter('#everything')->text(),
        );
        $this->keep('3 sauce house red');
        self::assertResponseRedirects(null, null, 'it is known from then on');

        $page = $this->keep('3 wrap foil with butter');
        $this->client->submit(
            $page
                ->selectButton('Save these allergens')
                ->form(['allergen_milk' => '1', 'allergen_alcohol' => '1']),
        );
        self::assertStringContainsString(
            'Wrapped · in foil · butter · contains milk, alcohol',
            $this->client->request('GET', $this->path(3))->filter('#everything')->text(),
        );
        self::assertStringContainsString('milk, alcohol', $label());
        self::assertStringNotContainsString('not all known', $label());
        $this->keep('3 sauce');
        self::assertStringContainsString(
            'Allergens not all known',
            $label(),
            'something went on of which nobody said what it is',
        );
        $this->keep('9 sauce');
        self::assertStringContainsString(
            'Allergens not all known',
            $this->client
                ->request('GET', $this->path(9).'/label')
                ->filter('main')
                ->text(),
        );
        self::assertStringNotContainsString(
            'No allergens',
            $this->client
                ->request('GET', $this->path(9).'/label')
                ->filter('main')
                ->text(),
        );
    }

    public function testLeftOverBrineIsSettledInAnyStageAlsoAfterTheEnd(): void
    {
        $this->logIn();
        $path = $this->path(5);
        $this->keep('5 discard fell');
        $this->client->request('GET', $path);
        self::assertSelectorExists('[data-rule="house.raw_leftover"]');
        $page = $this->client->request('GET', $path.'/steps');
        $this->client->submit($page->filter('button[name=tap][value="action/finding/house.raw_leftover"]')->form());
        self::assertResponseRedirects($path);
        $this->client->followRedirect();
        self::assertSelectorNotExists('[data-rule="house.raw_leftover"]');
    }

    public function testABatchBeginsWithATemplateOfRemindersThatAreDueLikeAllElse(): void
    {
        $this->logIn();
        $page = $this->client->request('GET', '/templates');
        $page = $this->client->submit(
            $page
                ->selectButton('Save template')
                ->form(['name' => 'Slow and wrapped', 'lines' => "spritz every\nwrap at 1650"]),
        );
        self::assertStringContainsString('1650', $page->filter('#problem-lines')->text());
        $this->client->submit(
            $page
                ->selectButton('Save template')
                ->form(['lines' => "spritz every 30\nwrap at 165\nturn when the colour is set"]),
        );
        self::assertResponseRedirects('/templates');
        $page = $this->client->request('GET', '/batches/new');
        $brisket = (string) $page->filter('option:contains("Beef brisket")')->attr('value');
        $template = (string) $page->filter('select[name=template] option:contains("Slow and wrapped")')->attr('value');
        $this->client->submit(
            $page->selectButton('Start batch')->form([
                'product' => $brisket,
                'tag' => '71',
                'pieces' => '1',
                'start' => 'cook',
                'when' => '3 h',
                'template' => $template,
            ]),
        );
        self::assertResponseRedirects();
        $due = fn (): string => $this->client->request('GET', '/')->filter('section[aria-labelledby=due-next]')->text();
        self::assertStringContainsString('Tag 71 · Beef brisket spritz', $due());
        self::assertStringNotContainsString('wrap', $due());
        $this->keep('71 spritz');
        $this->keep('71 166');
        self::assertMatchesRegularExpression('/14:30 in 30 min Tag 71 · Beef brisket spritz/', $due());
        self::assertStringContainsString('Tag 71 · Beef brisket wrap', $due());
        $this->keep('71 wrap paper');
        self::assertStringNotContainsString('Beef brisket wrap', $due());
        $page = $this->client->request('GET', $this->path(71));
        $this->client->submit($page->filter('button[name=text][value="turn when the colour is set"]')->form());
        self::assertResponseRedirects();
        self::assertStringNotContainsString(
            'turn when',
            $this->client->followRedirect()->filter('section[aria-labelledby=reminders]')->text(),
        );
        $this->keep('71 remind call the hall in 45');
        self::assertStringContainsString(
            '14:45',
            $this->client->request('GET', $this->path(71))->filter('section[aria-labelledby=reminders]')->text(),
        );
    }

    public function testGoingOnTheHeatAsksForAReading(): void
    {
        $this->logIn();
        $page = $this->client->request('GET', '/batches/new');
        $this->client->submit(
            $page
                ->selectButton('Start batch')
                ->form([
                    'product' => (string) $page->filter('option:contains("Beef brisket")')->attr('value'),
                    'tag' => '71',
                    'pieces' => '1',
                ]),
        );
        $this->keep('71 cook Drum');
        $page = $this->client->followRedirect();
        self::assertStringContainsString(
            'No temperature was logged before it went on the heat',
            $page->filter('main [role=status]')->text(),
        );
        self::assertStringContainsString(
            'line=71%20',
            (string) $page->selectLink('Check the temperature now')->attr('href'),
        );
        $this->keep('71 40');
        $this->keep('71 cook Oven 300');
        self::assertStringNotContainsString(
            'unread',
            $this->client->followRedirect()->filter('main [role=status]')->text(),
        );

        $page = $this->client->request('GET', '/batches/new');
        $this->client->submit(
            $page
                ->selectButton('Start batch')
                ->form([
                    'product' => (string) $page->filter('option:contains("Beef brisket")')->attr('value'),
                    'tag' => '72',
                    'pieces' => '1',
                ]),
        );
        $form = $this->client
            ->request('GET', $this->path(72).'/steps')
            ->filterXPath("//form[input[@name='type'][@value='cook']]")
            ->form(['pit' => 'Drum', 'temp_on' => '39.5']);
        $this->client->submit($form);
        $page = $this->client->followRedirect();
        self::assertStringNotContainsString('unread', $page->filter('main [role=status]')->text());
        self::assertStringContainsString('flat · 39.5 °F', $page->filter('#everything')->text());
    }
}
