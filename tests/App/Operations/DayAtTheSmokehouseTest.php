<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\Process\Process;
use Verjuicer\Tests\App\KitchenTestCase;

/**
 * A day and an evening at the Quarry Lane Smokehouse, logged through the interface as they happen: each row is the time
 * on the wall, who, and what they do. At the end the exported records give the same verdicts by command as on screen.
 */
final class DayAtTheSmokehouseTest extends KitchenTestCase
{
    private string $who = '';

    public function testADayFromDeliveryToOffThePit(): void
    {
        $this->at('06:00', 'mara');
        $this->deliver(
            'Hollow Creek Farm',
            ['Lamb shoulder', 'D-1', '4', '9.2', '38.5'],
            ['Beef rib roast', 'D-2', '1', '3.9', '39'],
        );
        $this->deliver(
            'North Fork Poultry',
            ['Turkey breast', 'D-3', '2', '6.2', '37.5'],
            ['Duck', 'D-4', '2', '4.4', '40.5'],
        );
        $this->deliver('Ridge Road Provisions', ['Pork loin', 'D-5', '2', '4', '36.9']);
        $this->pit('Drum', 'lit');
        $this->pit('Offset', 'lit');
        $this->check('T2', 'ice', '32.2');
        $this->at('06:40', 'ike');
        $this->pit('Drum', 'set', '250');
        $this->pit('Offset', 'set', '325');
        $this->pit('Drum', 'reading', '248');
        $this->pit('Offset', 'reading', '322');

        // Six batches: four from lots of this morning, an injected one, sausage of the house.
        $this->at('06:45', 'mara');
        $this->begin('D-1', 401, 4);
        $this->begin('D-2', 402, 1);
        $this->begin('D-3', 403, 2);
        $this->begin('D-4', 404, 2);
        $this->begin('D-5', 405, 2);
        $this->beginProduct('House sausage', 406, 12);
        $this->at('06:55', 'mara');
        $this->line('405 inject Orchard brine');
        $this->line('401 season Quarry rub');
        $this->at('07:10', 'ike');
        $pits = [401 => 'Drum', 405 => 'Drum', 402 => 'Offset', 403 => 'Offset', 404 => 'Offset', 406 => 'Drum'];
        foreach ($pits as $tag => $pit) {
            $this->line("$tag cook $pit");
        }
        self::assertStringContainsString('non-intact or ground', $this->batchPage(405)->text());
        self::assertStringContainsString(
            'Roast times below the full temperature count: oven, set point and weight meet the conditions of the code',
            $this->batchPage(402)->text(),
            'a small roast at 325 °F in moving air',
        );
        self::assertStringContainsString(
            'Only the full temperature counts',
            $this->batchPage(401)->text(),
            'at 250 °F they are not',
        );

        $this->at('08:30', 'ike');
        $this->readings('T1', [
            '401.1 74',
            '401.2 71',
            '401.3 76',
            '401.4 70',
            '405.1 88',
            '405.2 86',
            '406.1 120',
            '406.2 122',
        ]);
        $this->readings('T2', [
            '402 96',
            '403.1 breast 92',
            '403.2 breast 90',
            '404.1 breast 104',
            '404.1 thigh 99',
            '404.2 breast 101',
            '404.2 thigh 98',
        ]);
        $this->at('09:30', 'mara');
        $this->readings('T1', ['406.1 158', '406.2 159', '405.1 118', '401.1 108']);
        $this->at('09:32', 'mara');
        foreach (range(3, 12) as $piece) {
            $this->readings('T1', ["406.$piece 158.5"]);
        }
        $this->line('406 off rack');
        $this->batchPage(406);
        self::assertSelectorTextContains('[data-rule=cook][data-verdict=met]', 'Reached 155 °F held 17 s: read 158 °F');

        // The roast by the table: 131 °F is held, not reached; one more reading shows it.
        $this->at('10:10', 'mara');
        $this->readings('T2', ['402 140', '403.1 breast 140', '404.1 breast 150', '404.1 thigh 147']);
        self::assertStringContainsString('or later: still at', $this->batchPage(402)->text());
        $this->at('10:25', 'mara');
        $this->readings('T2', [
            '402 142',
            '403.1 breast 158',
            '403.2 breast 157',
            '404.1 breast 167',
            '404.1 thigh 168',
            '404.2 breast 166',
            '404.2 thigh 169',
        ]);
        self::assertCount(1, $this->batchPage(402)->filter('[data-rule=cook][data-verdict=met]'));
        $this->line('404 off rack');

        // Noon: the second thermometer lies. What it showed is not shown any more.
        $this->at('12:00', 'mara');
        $this->check('T2', 'ice', '36.5');
        self::assertCount(0, $this->batchPage(402)->filter('[data-rule=cook][data-verdict=met]'));
        self::assertStringContainsString('in doubt', $this->batchPage(404)->text());
        $this->check('T1', 'ice', '32.3');
        $this->readings('T1', ['402 141', '403.1 breast 166', '403.2 breast 167']);
        $this->at('12:20', 'mara');
        $this->readings('T1', [
            '402 142',
            '401.1 158',
            '401.2 155',
            '401.3 160',
            '401.4 154',
            '405.1 144',
            '405.2 143',
        ]);
        self::assertCount(
            1,
            $this->batchPage(402)->filter('[data-rule=cook][data-verdict=met]'),
            'read again with another',
        );
        foreach ([402, 403] as $tag) {
            $this->line("$tag off rack");
        }
        // Carry-over is never assumed: taken off at 144, it needs its reading.
        $this->line('405 off rack');
        $this->at('12:30', 'ike');
        $this->readings('T1', ['405.1 145.5', '405.2 145']);
        $this->at('12:33', 'ike');
        $this->readings('T1', ['405.1 146', '405.2 145.5']);
        $this->at('15:30', 'ike');
        $this->readings('T1', ['401.1 196', '401.2 197', '401.3 199', '401.4 195']);
        $this->line('401 off towels');
        $this->at('15:45', 'ike');
        $expected = [401 => 'met', 402 => 'met', 403 => 'met', 404 => 'running', 405 => 'met', 406 => 'met'];
        foreach ($expected as $tag => $verdict) {
            $this->assertTheCommandAgrees($tag, 'cook', $verdict);
        }
    }

    public function testAnEveningWithItsWarningsBeforeEachLimit(): void
    {
        $this->forecastsAreMade();
        // A long rest in a box: the board says when to read it, before it can be under.
        $this->at('15:00', 'mara');
        $this->beginProduct('Mutton ham', 501, 1, '4.6');
        $this->line('501 cook Drum 250');
        $this->at('15:02', 'mara');
        $this->readings('T1', ['501 203']);
        $this->line('501 rest insulated box');
        $this->at('16:30', 'ike');
        $this->readings('T1', ['501 181']);
        $this->at('17:15', 'ike');
        $this->readings('T1', ['501 168']);
        self::assertStringContainsString('may drop below 135 °F', $this->dues(501), 'said while it is at 168');
        $this->at('18:20', 'ike');
        $this->readings('T1', ['501 150']);
        $this->line('501 hold cabinet');
        $this->at('18:22', 'ike');
        $this->readings('T1', ['501 149']);

        // A cooling that will miss, warned of an hour and a half before; split into pans it makes it.
        $this->at('18:30', 'mara');
        $this->beginProduct('Pork butt', 502, 1, '3.4');
        $this->line('502 cook Drum 250');
        $this->readings('T1', ['502 188'], true);
        $this->line('502 cool walk-in');
        $this->at('19:30', 'ike');
        $this->readings('T1', ['502 140']);
        $this->at('19:50', 'ike');
        $this->readings('T1', ['502 133']);
        $this->at('20:05', 'ike');
        $this->readings('T1', ['502 128']);
        self::assertStringContainsString('will probably miss 70 °F: act now', $this->dues(502));
        self::assertStringContainsString('Do this now: ', $this->batchPage(502)->text());
        $this->divide(502, ['521' => '1.1', '522' => '1.0']);
        foreach ([521, 522] as $tag) {
            $this->line("$tag cool ice bath");
        }
        foreach (['20:30' => 96, '20:50' => 76, '21:05' => 66, '22:40' => 40] as $time => $degrees) {
            $this->at($time, 'ike');
            $this->readings('T1', ["521 $degrees", '522 '.($degrees - 1), '501 146']);
        }
        foreach ([521, 522] as $tag) {
            self::assertCount(
                1,
                $this->batchPage($tag)->filter('[data-rule="cool.stage1"][data-verdict=met]'),
                'rescued',
            );
            $this->line("$tag cold walk-in");
        }
        $this->line('522 pack vacuum');
        self::assertStringContainsString('out of the vacuum pack', $this->batchPage(522)->text());

        // A hot-hold dip: it opens a decision, and stays open until the reheat is written down.
        $this->at('22:45', 'ike');
        $this->readings('T1', ['501 128']);
        self::assertStringContainsString(
            'fell below the hot-holding limit: record corrective action',
            $this->dues(501),
        );
        self::assertStringContainsString('Reheat it to 165 °F', $this->batchPage(501)->filter('#actions')->text());
        $this->line('501 reheat');
        $this->at('23:30', 'ike');
        $this->readings('T1', ['501 166']);
        $this->line('501 hold cabinet');
        $this->act(501, 'hot_hold', 'reheated to 166 °F within the hour');
        self::assertStringNotContainsString('fell under', $this->dues(501));

        // A tray by the clock, and what is left of it at the end, thrown away in one step.
        $this->line('521 clock cold');
        $this->readings('T1', ['521 39.5']);
        self::assertStringContainsString('serve or discard what is left', $this->dues(521));
        $this->at('23:59', 'ike');
        $this->line('521 discard end of service');
        $expected = [
            501 => ['hot_hold', 'broken'],
            502 => ['cool.stage1', 'stopped'],
            521 => ['time_control', 'met'],
            522 => ['cool.total', 'met'],
        ];
        foreach ($expected as $tag => [$rule, $verdict]) {
            $this->assertTheCommandAgrees($tag, $rule, $verdict);
        }
    }

    private function at(string $wall, string $who): void
    {
        [$hour, $minute] = array_map(intval(...), explode(':', $wall));
        $start = new \DateTimeImmutable('2026-11-25 00:00', new \DateTimeZone('America/Denver'));
        self::mockTime($start->setTime($hour, $minute));
        if ($who !== $this->who) {
            $this->logIn($who);
            $this->who = $who;
        }
    }

    /** @param array{string, string, string, string, string} ...$lots product, number, pieces, kilograms, °F */
    private function deliver(string $supplier, array ...$lots): void
    {
        $page = $this->client->request('GET', '/receiving/new');
        $fields = ['supplier' => $supplier];
        foreach (array_values($lots) as $row => [$product, $number, $pieces, $kilograms, $degrees]) {
            $fields += [
                "product$row" => (string) $page
                    ->filter("select[name=product$row] option:contains('$product')")
                    ->attr('value'),
                "number$row" => $number,
                "pieces$row" => $pieces,
                "weight$row" => $kilograms,
                "temp$row" => $degrees,
                "thermometer$row" => 'T1',
                "place$row" => 'walk-in',
            ];
        }
        $this->client->submit($page->selectButton('Save delivery')->form($fields));
        self::assertResponseRedirects('/receiving');
    }

    private function pit(string $name, string $sign, string $temp = ''): void
    {
        $pit = $this->words("SELECT id::text FROM pit WHERE name = '$name'");
        $form = $this->client
            ->request('GET', '/pits/'.$pit)
            ->filter('main form')
            ->form();
        $this->client->request('POST', '/pits/'.$pit, ['sign' => $sign, 'temp' => $temp] + $form->getValues());
        self::assertResponseStatusCodeSame(303);
    }

    private function begin(string $lot, int $tag, int $pieces): void
    {
        $page = $this->client->request(
            'GET',
            '/batches/new?lot='.$this->words("SELECT id::text FROM lot WHERE number = '$lot'"),
        );
        $this->client->submit(
            $page->selectButton('Start batch')->form(['tag' => (string) $tag, 'pieces' => (string) $pieces]),
        );
        self::assertResponseStatusCodeSame(303);
    }

    private function beginProduct(string $product, int $tag, int $pieces, string $kilograms = ''): void
    {
        $page = $this->client->request('GET', '/batches/new');
        $this->client->submit(
            $page
                ->selectButton('Start batch')
                ->form([
                    'product' => (string) $page->filter("[name=product] option:contains('$product')")->attr('value'),
                    'tag' => (string) $tag,
                    'pieces' => (string) $pieces,
                    'weight' => $kilograms,
                ]),
        );
        self::assertResponseStatusCodeSame(303);
    }

    private function line(string $line): void
    {
        $this->keep($line);
        self::assertResponseStatusCodeSame(303, $line);
    }

    /** @param list<string> $lines */
    private function readings(string $thermometer, array $lines, bool $isSure = true): void
    {
        foreach ($lines as $line) {
            $form = $this->client
                ->request('GET', '/log')
                ->filter('form[action="/log"]')
                ->form(['line' => "$line $thermometer"]);
            $this->client->request('POST', '/log', ($isSure ? ['sure' => '1'] : []) + $form->getValues());
            self::assertResponseStatusCodeSame(303, $line);
        }
    }

    private function check(string $label, string $method, string $read): void
    {
        $page = $this->client->request(
            'GET',
            '/thermometers/'.$this->words("SELECT id::text FROM thermometer WHERE label = '$label'"),
        );
        $this->client->submit($page->selectButton('Save check')->form(['method' => $method, 'read' => $read]));
        self::assertResponseStatusCodeSame(303);
    }

    /** @param array<int, string> $pans kilograms by tag */
    private function divide(int $tag, array $pans): void
    {
        $page = $this->client->request('GET', $this->path($tag).'/divide');
        $fields = ['total' => (string) array_sum(array_map(floatval(...), $pans))];
        foreach (array_keys($pans) as $row => $pan) {
            $fields += [
                "tag$row" => (string) $pan,
                "grams$row" => $pans[$pan],
                "container$row" => 'pan',
                "depth$row" => '4',
            ];
        }
        $this->client->submit($page->selectButton('Divide batch')->form($fields));
        self::assertResponseStatusCodeSame(303);
    }

    private function act(int $tag, string $rule, string $words): void
    {
        $path = $this->path($tag);
        $form = $this->client
            ->request('GET', $path)
            ->filter("#actions input[name=finding][value='$rule']")
            ->closest('form')
            ?->form(['other' => $words]);
        self::assertNotNull($form);
        $this->client->submit($form);
        self::assertResponseStatusCodeSame(303);
    }

    private function batchPage(int $tag): Crawler
    {
        return $this->client->request('GET', '/batches/'.$this->id($tag));
    }

    private function dues(int $tag): string
    {
        return implode(
            ' | ',
            $this->client
                ->request('GET', '/')
                ->filter("[data-due]:contains('Tag $tag')")
                ->each(static fn (Crawler $due): string => $due->text()),
        );
    }

    private function id(int $tag): string
    {
        return $this->words("SELECT id::text FROM batch WHERE tag = $tag ORDER BY begun_at DESC LIMIT 1");
    }

    private function assertTheCommandAgrees(int $tag, string $rule, string $verdict): void
    {
        $this->client->request('GET', '/batches/'.$this->id($tag).'/record.json');
        $record = (string) $this->client->getResponse()->getContent();
        $this->client->request('GET', '/batches/'.$this->id($tag).'/assessment.json');
        $served = json_decode((string) $this->client->getResponse()->getContent(), true);
        self::assertIsArray($served);
        self::assertIsString($served['as_of']);
        $process = new Process(
            [\PHP_BINARY, 'bin/console', 'verjuicer:assess', '-', '--as-of='.$served['as_of']],
            __DIR__.'/../../..',
            null,
            $record,
        );
        $process->mustRun();
        $answer = json_decode($process->getOutput(), true);
        self::assertIsArray($answer);
        self::assertSame($served['rules_judged'], $answer['rules_judged'], "tag $tag");
        self::assertIsArray($answer['rules_judged']);
        self::assertSame($verdict, $answer['rules_judged'][$rule] ?? null, "tag $tag, $rule");
    }
}
