<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Site;

use PHPUnit\Framework\Attributes\DataProvider;
use Verjuicer\App\Platform\Wording\Language;
use Verjuicer\Tests\App\KitchenTestCase;

/** Whoever reads Spanish sees, writes and hears it; what is recorded is the same. */
final class SpanishTest extends KitchenTestCase
{
    private const SPANISH = ['HTTP_ACCEPT_LANGUAGE' => 'es-MX,es;q=0.9,en;q=0.5'];

    public function testTheBrowserThenTheScreenDecideBeforeTheLogin(): void
    {
        $page = $this->client->request('GET', '/login', server: self::SPANISH);
        self::assertSame('es', $page->filter('html')->attr('lang'));
        self::assertSelectorTextContains('h1', 'Entrar');
        $this->client->request('GET', '/no/such/page', server: self::SPANISH);
        self::assertSelectorTextContains('main', 'Página no encontrada');
        $page = $this->client->request('GET', '/login', server: ['HTTP_ACCEPT_LANGUAGE' => 'de-AT,en;q=0.5']);
        self::assertSelectorTextContains('h1', 'Log in');
        $this->client->click($page->selectLink('Español')->link());
        self::assertSame('es', $this->client->getCookieJar()->get(Language::COOKIE)?->getValue());
        $this->client->request('GET', '/login', server: ['HTTP_ACCEPT_LANGUAGE' => 'en']);
        self::assertSelectorTextContains('h1', 'Entrar');
    }

    public function testAPersonChoosesALanguageForEveryScreen(): void
    {
        $this->logIn();
        $page = $this->client->request('GET', '/me');
        $this->client->submit($page->selectButton('Save language')->form(['language' => 'es']));
        $page = $this->client->followRedirect();
        self::assertSelectorTextContains('main', 'Tu idioma está guardado');
        self::assertSame('es', $page->filter('[name=language] [selected]')->attr('value'));
        $this->client->request('GET', '/', server: ['HTTP_ACCEPT_LANGUAGE' => 'en']);
        self::assertSelectorTextContains('main', 'Tandas abiertas');
        $page = $this->client->request('GET', '/me');
        $this->client->submit($page->selectButton('Guardar idioma')->form(['language' => '']));
        $this->client->request('GET', '/me', server: ['HTTP_ACCEPT_LANGUAGE' => 'en']);
        self::assertSelectorTextContains('main', 'PIN for shared tablets');
    }

    public function testTheSiteDecidesWhereNobodySaysOtherwise(): void
    {
        $this->logIn('dell');
        $page = $this->client->request('GET', '/site');
        $this->client->submit($page->selectButton('Save')->form(['language' => 'es', 'reason' => 'the crew reads it']));
        $page = $this->client->request('GET', '/site', server: ['HTTP_ACCEPT_LANGUAGE' => 'fr']);
        self::assertSame('es', $page->filter('html')->attr('lang'));
        self::assertSelectorTextContains('main', 'Ajustes del local');
        $days = $this->client->request('GET', '/days/2026-11-24', server: ['HTTP_ACCEPT_LANGUAGE' => 'fr'])->text();
        self::assertMatchesRegularExpression('/\b(?:lun|mar|mié|jue|vie|sáb|dom) \d+ nov/u', $days);
    }

    #[DataProvider('lines')]
    public function testTheLogLineTakesSpanishWordsAndStillTheEnglishOnes(
        string $line,
        string $type,
        string $members,
    ): void {
        $this->logIn();
        $this->client->setServerParameters(self::SPANISH);
        $page = $this->keep($line);
        if ($this->client->getResponse()->getStatusCode() === 422) {
            $this->client->submit($page->selectButton('Sí, guardar')->form());
        }
        self::assertResponseRedirects();
        $batch = 'SELECT id FROM batch WHERE tag = 7 ORDER BY begun_at DESC LIMIT 1';
        $event = "FROM event WHERE batch_id = ($batch) ORDER BY seq DESC LIMIT 1";
        self::assertSame($type, $this->words("SELECT type $event"));
        self::assertStringContainsString($members, $this->words("SELECT members::text $event"));
        $log = $this->client->request('GET', $this->path(7))->filter('#everything')->text();
        self::assertStringNotContainsString('Wrapped', $log);
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function lines(): iterable
    {
        yield 'wrap' => ['7 envolver papel', 'wrap', '"paper"'];
        yield 'wrap, in English' => ['7 wrap paper', 'wrap', '"paper"'];
        yield 'off' => ['7 fuera', 'rest', '{'];
        yield 'with a reason' => ['7 reposo porque se apagó el horno', 'rest', '{'];
        yield 'reading ten minutes ago' => ['7 165 -10', 'reading', '165'];
    }
}
