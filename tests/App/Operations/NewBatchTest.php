<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use PHPUnit\Framework\Attributes\DataProvider;
use Verjuicer\Tests\App\KitchenTestCase;

/** A batch begins with what was sent, or not at all. */
final class NewBatchTest extends KitchenTestCase
{
    public function testWhetherThereIsALotIsChosenOnPurpose(): void
    {
        $this->logIn();
        $page = $this->client->request('GET', '/batches/new');
        $lots = $page->filter('[name=lot]');
        self::assertNotNull($lots->attr('required'));
        self::assertCount(0, $lots->filter('[selected]'));
        self::assertSame('', $lots->filter('option')->first()->attr('value'));
        $this->client->submit($page->selectButton('Start batch')->form([
            'lot' => 'no_lot',
            'product' => (string) $page->filter('[name=product] option:contains("Lamb shoulder")')->attr('value'),
            'tag' => '88',
            'pieces' => '2',
        ]));
        self::assertResponseRedirects();
        self::assertSame(0, $this->number(
            'SELECT count(*)::int FROM batch_lot l JOIN batch b ON b.id = l.batch_id WHERE b.tag = 88',
        ));
    }

    #[DataProvider('unknown')]
    public function testRefusesWhatThereIsNotAndKeepsTheInput(string $field, string $value): void
    {
        $this->logIn();
        $page = $this->client->request('GET', '/batches/new');
        $form = $page->selectButton('Start batch')->form();
        $sent = [
            'product' => (string) $page->filter('option:contains("Lamb shoulder")')->attr('value'),
            'tag' => '88',
            'pieces' => '2',
            'temp' => '39.5',
            $field => $value,
        ] + $form->getPhpValues();
        $before = $this->number('SELECT count(*) FROM batch');
        $page = $this->client->request('POST', '/batches/new', $sent);
        self::assertResponseStatusCodeSame(422);
        self::assertSelectorExists("#problems [href=\"#problem-$field\"]");
        self::assertSame('39.5', $page->filter('[name=temp]')->attr('value'));
        self::assertSame('88', $page->filter('[name=tag]')->attr('value'));
        self::assertSame($before, $this->number('SELECT count(*) FROM batch'));
    }

    /** @return iterable<string, array{string, string}> */
    public static function unknown(): iterable
    {
        yield 'a lot' => ['lot', '00000000-0000-7000-8000-000000000000'];
        yield 'a pit' => ['pit', 'Kiln'];
        yield 'a thermometer' => ['thermometer', 'T99'];
        yield 'a template' => ['template', '00000000-0000-7000-8000-000000000000'];
    }
}
