<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use Symfony\Component\DomCrawler\Crawler;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Chain\ChainVerifier;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\Core\Event\Kinds\Received;
use Verjuicer\Tests\App\KitchenTestCase;

/**
 * What was written down wrong of a batch, its arrival or a stage is put right openly, with a reason, and all that rests
 * on it follows.
 */
final class PutRightTest extends KitchenTestCase
{
    public function testThePiecesTheWeightAndTheProductOfABatch(): void
    {
        $this->logIn();
        $this->keep('7.1 off rack -5');
        $path = $this->path(7);
        $page = $this->client->request('GET', $path.'/facts');
        $page = $this->client->submit($page->selectButton('Save correction')->form(['reason' => 'counted again']));
        self::assertStringContainsString('You changed nothing', $page->filter('[role=alert]')->text());
        $cheek = (string) $page->filter('option:contains("Beef cheek")')->attr('value');
        $form = $page
            ->selectButton('Save correction')
            ->form([
                'pieces' => '5',
                'weight' => '2.5',
                'product' => $cheek,
                'stuffed' => '1',
                'reason' => 'counted again',
            ]);
        $this->client->submit($form);
        $this->client->submit($form);
        self::assertResponseRedirects($path);
        foreach ([7, 71] as $tag) {
            $product = $this->service(StoredRecords::class)->of($this->batch($tag))->product;
            self::assertSame(
                ['Beef cheek', 'beef', 5, 2_500, true],
                [
                    $product->name,
                    $product->animal->value,
                    $product->pieces,
                    $product->rawWeight?->grams(),
                    $product->stuffed,
                ],
                "tag $tag",
            );
        }
        self::assertSame(
            [2, 3, 4, 5],
            $this->service(StoredRecords::class)->of($this->batch(7))->product->pieceNumbers,
        );
        self::assertSame(
            'poultry',
            $this->service(Assessments::class)->of($this->batch(7))->cooks[0]->window->rule->category->value,
            'judged anew, as stuffed',
        );
        $said = $this->client->request('GET', $path)->filter('[data-fact]')->text();
        self::assertStringContainsString('weight per piece 2.5 kg, stuffed yes', $said);
        self::assertSame(
            'Lamb shoulder',
            $this->words('SELECT product_name FROM batch WHERE tag = 7'),
            'The first version stays in the record, with the reason',
        );
        self::assertNull(
            $this->service(ChainVerifier::class)->firstBreak($this->batch(7)->site),
            'and what is right is in the chain',
        );
    }

    public function testWhatIsPutRightAfterADayWasSignedIsAnAmendment(): void
    {
        $this->logIn('dell');
        $page = $this->client->request('GET', '/days/2026-11-24');
        $fields = ['password' => 'oak-and-patience', 'until_now' => '1'];
        foreach (
            $page
->filter('input[name^=reason]')
->each(static fn (Crawler $one): string => (string) $one->attr('name')) as $name
        ) {
            $fields[$name] = 'seen';
        }
        $this->client->submit($page->selectButton('Sign the day')->form($fields));
        $this->asOwner();
        $this->connection()->executeStatement('SET session_replication_role = replica');
        $this->connection()->executeStatement("UPDATE day_sign SET at = at - interval '1 minute'");
        $this->connection()->executeStatement('SET session_replication_role = DEFAULT');
        $page = $this->client->request('GET', $this->path(7).'/facts');
        $this->client->submit(
            $page->selectButton('Save correction')->form(['pieces' => '5', 'reason' => 'counted again']),
        );
        $this->logIn('dell');
        self::assertStringContainsString(
            'Edit details',
            $this->client->request('GET', '/days/2026-11-24')->filter('main section')->first()->text(),
        );
    }

    public function testAnArrivalForItsLotAndEveryBatchOfIt(): void
    {
        $this->logIn();
        $page = $this->client->request('GET', '/batches/new?lot='.$this->lot('HC-2207'));
        $this->client->submit($page->selectButton('Start batch')->form(['tag' => '88', 'pieces' => '1']));
        self::assertResponseRedirects();
        $row = $this->client
            ->request('GET', $this->path(7))
            ->filterXPath("//table[@id='everything']//tr[contains(., 'Received')]");
        $page = $this->client->click($row->selectLink('Correct')->link());
        $this->client->submit(
            $page->selectButton('Save correction')->form(['temp' => '44.6', 'reason' => 'the slip says 44.6']),
        );
        self::assertResponseRedirects($this->path(7));
        self::assertSame(
            ['44.6', '44.6', 'broken', 'broken'],
            [...array_map($this->arrival(...), [7, 88]), ...array_map($this->receiving(...), [7, 88])],
        );
        self::assertStringContainsString(
            '44.6 °F',
            $this->client
                ->request('GET', '/lots/'.$this->lot('HC-2207'))
                ->filter('h1 + p')
                ->text(),
        );

        // The same from the lot; and whoever takes of it later takes what is right.
        $page = $this->client->request('GET', '/lots/'.$this->lot('HC-2207'));
        $form = $page->filter('form[action$="/arrival"]')->form(['temp' => '38.1', 'reason' => 'it was another box']);
        $this->client->submit($form);
        self::assertResponseRedirects();
        $page = $this->client->request('GET', '/batches/new?lot='.$this->lot('HC-2207'));
        $this->client->submit($page->selectButton('Start batch')->form(['tag' => '89', 'pieces' => '1']));
        self::assertSame(['38.1', '38.1', '38.1'], array_map($this->arrival(...), [7, 88, 89]));
    }

    public function testAStageThatWasAnotherKindOfStage(): void
    {
        $path = $this->path(3);
        $row = $this->client->request('GET', $path)->filterXPath("//table[@id='everything']//tr[contains(., 'Rest')]");
        $page = $this->client->click($row->selectLink('Correct')->link());
        $page = $this->client->click($page->selectLink('Hot holding')->link());
        self::assertStringContainsString(
            'Change to: Hot holding',
            $page->filter('form[aria-labelledby=put-right]')->text(),
        );
        $this->client->submit(
            $page
                ->selectButton('Save correction')
                ->form(['place' => 'cabinet', 'reason' => 'it went straight into the cabinet']),
        );
        self::assertResponseRedirects($path);
        self::assertSame(
            'hot_hold',
            $this->service(Assessments::class)->of($this->batch(3))->timeline->stage()?->name(),
        );
    }

    public function testATapAndALateReadingHaveTheirTimeAndTheirReason(): void
    {
        $path = $this->path(7);
        $form = $this->client
            ->request('GET', $path.'/steps')
            ->filter('form[aria-label="Quick steps"] button[value="wrap/with/foil"]')
            ->form(['when' => '25', 'of_piece' => '2']);
        $this->client->submit($form);
        self::assertResponseRedirects($path);
        self::assertStringContainsString(
            'Wrapped · in foil · piece 2',
            $page = $this->client->followRedirect()->filter('#everything')->text(),
        );
        self::assertStringContainsString('13:35', $page);
        $this->keep('7.2 157 -65 because the card lay in the truck');
        self::assertResponseRedirects();
        self::assertStringContainsString(
            '157 °F · T1 · the card lay in the truck',
            $page = $this->client->request('GET', $path)->filter('#everything')->text(),
        );
        self::assertStringContainsString('1 h 5 min later', $page);
        $row = $this->client->request('GET', '/days/2026-11-24')->filter('[data-batch="7"]')->text();
        self::assertStringContainsString(
            '1 of 11 readings entered more than 1 h later',
            $row,
            'and the sheet says how many',
        );
    }

    private function lot(string $number): string
    {
        return $this->words("SELECT id::text FROM lot WHERE number = '$number'");
    }

    private function arrival(int $tag): ?string
    {
        $temp = null;
        foreach ($this->service(Assessments::class)->of($this->batch($tag))->timeline->events as $event) {
            $temp = $event->detail instanceof Received ? $event->detail->temp?->number() : $temp;
        }

        return $temp;
    }

    private function receiving(int $tag): string
    {
        return $this->service(Assessments::class)->of($this->batch($tag))->rulesJudged['receiving']->value;
    }
}
