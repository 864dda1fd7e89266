<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Simulate;

use Symfony\Component\DomCrawler\Crawler;
use Symfony\Contracts\HttpClient\HttpClientInterface;
use Symfony\Contracts\HttpClient\ResponseInterface;

/** The served application as a browser and a device meet it: pages and forms with a session, the API with a token. */
final class SiteClient
{
    private string $cookies = '';

    /** @var (\Closure(): void)|null */
    private ?\Closure $before = null;

    public function __construct(private readonly HttpClientInterface $http, private readonly string $base)
    {
    }

    /** @param \Closure(): void $before runs before each request of a person or a program, not of a sensor */
    public function beforeEachRequest(\Closure $before): void
    {
        $this->before = $before;
    }

    public function logIn(string $login, string $password): void
    {
        $page = $this->page('/login');
        $this->post('/login', [
            '_csrf_token' => $page->filter('input[name="_csrf_token"]')->attr('value') ?? '',
            '_username' => $login,
            '_password' => $password,
        ]);
    }

    /** Of its session, as a header has them. */
    public function cookies(): string
    {
        return $this->cookies;
    }

    public function page(string $path): Crawler
    {
        return new Crawler($this->ask('GET', $path)->getContent(false), $this->base.$path);
    }

    /**
     * @param array<string, string> $fields
     *
     * @return int the status: 303 where it was kept
     */
    public function post(string $path, array $fields): int
    {
        return $this->ask('POST', $path, ['body' => $fields])->getStatusCode();
    }

    /** @return array<mixed> */
    public function read(string $path, string $token): array
    {
        ($this->before ?? static fn () => null)();

        return $this->http->request('GET', $this->base.$path, ['auth_bearer' => $token, 'timeout' => 20])->toArray();
    }

    /** @param array<string, mixed> $body */
    public function send(array $body, string $token): void
    {
        $this->http->request('POST', $this->base.'/api/v1/readings', [
            'auth_bearer' => $token,
            'json' => $body,
            'timeout' => 20,
        ])->getContent();
    }

    /** @param array<string, mixed> $options */
    private function ask(string $method, string $path, array $options = []): ResponseInterface
    {
        ($this->before ?? static fn () => null)();
        $response = $this->http->request($method, $this->base.$path, $options + [
            'headers' => $this->cookies === '' ? [] : ['Cookie' => $this->cookies],
            'max_redirects' => 0,
            'timeout' => 20,
        ]);
        foreach ($response->getHeaders(false)['set-cookie'] ?? [] as $cookie) {
            $this->cookies = explode(';', $cookie)[0];
        }

        return $response;
    }
}
