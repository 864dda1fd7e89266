<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\EntryPoint;

use Symfony\Component\DomCrawler\Crawler;
use Verjuicer\App\EntryPoint\Setup\SetupCode;
use Verjuicer\Tests\App\KitchenTestCase;

final class SetupTest extends KitchenTestCase
{
    private const TYPED = [
        'name' => 'Bend of the River',
        'timezone' => 'Europe/Vienna',
        'elevation_m' => '620 ft',
        'unit' => 'C',
        'weight_unit' => 'kg',
        'clock' => '24',
        'manager_name' => 'Orla Finch',
        'manager_initials' => 'of',
        'manager_login' => 'orla',
        'password' => 'three slow rivers meet',
    ];

    public function testAKitchenBeginsWithTheCodeOfTheConsoleAndNeverAgain(): void
    {
        $code = $this->service(SetupCode::class)->make();
        $page = $this->client->request('GET', '/setup');
        $duck = (string) $page->filter('label:contains("Duck")')->first()->filter('input')->attr('name');
        $this->submit($page, ['code' => strtolower($code), $duck => false] + self::TYPED);
        $page = $this->client->followRedirect();
        self::assertStringContainsString('Your kitchen is set up', $page->text());
        self::assertStringNotContainsString('Practice', $page->text());
        $steps = $page->filter('section:contains("First tasks")');
        self::assertStringContainsString('Invite the crew', $steps->text());
        foreach ($steps->filter('a')->links() as $link) {
            $this->client->click($link);
            self::assertResponseIsSuccessful($link->getUri());
        }
        self::assertSame(
            'Bend of the River, Europe/Vienna, C, 189, OF',
            $this->words(
                "SELECT concat_ws(', ', s.name, s.timezone, s.unit, s.elevation_m, a.initials) FROM site s
                 JOIN account a ON a.site_id = s.id WHERE NOT s.is_practice",
            ),
        );
        $products = $this->client->request('GET', '/products')->text();
        self::assertStringContainsString('Beef brisket', $products);
        self::assertStringNotContainsString('Duck ', $products);
        $this->client->restart();
        $this->client->request('GET', '/setup');
        self::assertResponseStatusCodeSame(404, 'never again once a site exists');
        self::assertFalse($this->service(SetupCode::class)->isRight($code), 'the code is good once');
    }

    public function testAKitchenSetUpInSpanishBeginsWithASpanishCatalogue(): void
    {
        $code = $this->service(SetupCode::class)->make();
        $page = $this->client->request('GET', '/setup', server: ['HTTP_ACCEPT_LANGUAGE' => 'es']);
        self::assertGreaterThan(0, $page->filter('label:contains("Espaldilla de cerdo")')->count());
        $this->client->submit($page->filter('main button.key-main')->form(), ['code' => $code] + self::TYPED, [
            'HTTP_ACCEPT_LANGUAGE' => 'es',
        ]);
        self::assertSame(
            'aluminio o papel a 74 °C, de 1 a 4 h envuelto, en hielera aislada, la sonda entra como en mantequilla',
            $this->words(
                "SELECT concat_ws(', ', p.wrap, p.rest, p.doneness->>'feel') FROM product p
                 JOIN site s ON s.id = p.site_id WHERE NOT s.is_practice AND p.name = 'Espaldilla de cerdo'",
            ),
        );
    }

    public function testNobodyOfTheDemoSeesTheOtherSite(): void
    {
        $code = $this->service(SetupCode::class)->make();
        $this->submit($this->client->request('GET', '/setup'), ['code' => $code] + self::TYPED);
        $own = $this->words('SELECT a.id FROM account a JOIN person p ON p.id = a.person_id WHERE p.login = \'orla\'');
        $theirs = $this->words('SELECT id FROM batch WHERE tag = 7');
        $this->client->request('GET', "/batches/$theirs");
        self::assertResponseStatusCodeSame(404);
        $this->logIn('dell');
        self::assertStringContainsString('Practice kitchen', $this->client->request('GET', '/people')->text());
        self::assertStringNotContainsString('Orla', $this->client->getCrawler()->text());
        $this->client->request('GET', "/people/$own");
        self::assertResponseStatusCodeSame(404);
        $this->client->request('POST', "/people/$own/disable");
        self::assertResponseStatusCodeSame(404);
    }

    public function testWithoutTheCodeNothingBegins(): void
    {
        $this->service(SetupCode::class)->make();
        foreach (['', 'AAAA-BBBB-CCCC'] as $code) {
            $page = $this->submit($this->client->request('GET', '/setup'), ['code' => $code] + self::TYPED);
            self::assertResponseStatusCodeSame(422);
            self::assertSelectorExists('#problem-code');
            self::assertSame('Orla Finch', $page->filter('[name=manager_name]')->attr('value'), 'nothing is lost');
        }
        self::mockTime('+2 days');
        self::assertFalse($this->service(SetupCode::class)->isRight('AAAA-BBBB-CCCC'));
        self::assertSame(0, $this->number('SELECT count(*) FROM site WHERE NOT is_practice'));
    }

    /** @param array<string, string|false> $typed */
    private function submit(Crawler $page, array $typed): Crawler
    {
        return $this->client->submit($page->selectButton('Set up kitchen')->form(), $typed);
    }
}
