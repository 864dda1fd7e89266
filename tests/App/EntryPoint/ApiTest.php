<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\EntryPoint;

use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Routing\RouterInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Sensor\Sensors;
use Verjuicer\App\Site\Access\AccessTokens;
use Verjuicer\Tests\App\KitchenTestCase;

/** The answers of the API are those its document says. */
final class ApiTest extends KitchenTestCase
{
    /** @param array<string, string> $query */
    #[DataProvider('asked')]
    public function testAnAnswerIsAsTheDocumentSays(
        string $path,
        int $status,
        array $query = [],
        ?string $method = null,
        ?string $body = null,
        bool $isSensor = false,
    ): void {
        $account = $this->logIn();
        $batch = $this->batch(7)->id->toRfc4122();
        $secret = $isSensor
            ? $this->service(Sensors::class)->register('P9', 1, '', $account)[1]
            : $this->service(AccessTokens::class)->make('Test', $account);
        $this->nobody();
        $filled = str_replace(['{id}', '{other}'], [$batch, Uuid::v7()->toRfc4122()], $path);
        $this->client->request(
            $method ?? 'GET',
            $filled,
            $query,
            server: ['HTTP_AUTHORIZATION' => 'Bearer '.$secret, 'CONTENT_TYPE' => 'application/json'],
            content: $body,
        );
        $response = $this->client->getResponse();
        $answer = (string) $response->getContent();
        self::assertSame($status, $response->getStatusCode(), $answer);
        $template = str_replace('{other}', '{id}', $path);
        self::assertSame('', $this->wrongBy($template, strtolower($method ?? 'GET'), $status, $answer), $answer);
    }

    /**
     * @return iterable<string, array{string, int, 2?: array<string, string>, 3?: string, 4?: string|null,
     *     5?: bool}>
     */
    public static function asked(): iterable
    {
        yield 'batches' => ['/api/v1/batches', 200];
        yield 'open batches' => ['/api/v1/batches', 200, ['open' => '1']];
        yield 'a record' => ['/api/v1/batches/{id}/record', 200];
        yield 'no such record' => ['/api/v1/batches/{other}/record', 404];
        yield 'an assessment' => ['/api/v1/batches/{id}/assessment', 200];
        yield 'lots' => ['/api/v1/lots', 200];
        yield 'dues' => ['/api/v1/dues', 200];
        $reading = '{"sequence": 1, "at": "2026-11-24T20:00:00Z", "temp": {"f": 150.0}}';
        $readings = '{"readings": ['.$reading.', {"sequence": 2}]}';
        yield 'readings' => ['/api/v1/readings', 200, [], 'POST', $readings, true];
        yield 'nothing taken' => ['/api/v1/readings', 422, [], 'POST', '{"readings": [{"sequence": 2}]}', true];
        yield 'no readings' => ['/api/v1/readings', 422, [], 'POST', 'x', true];
        yield 'who reads may not send' => ['/api/v1/readings', 403, [], 'POST', $readings];
        yield 'who sends may not read' => ['/api/v1/batches', 403, [], 'GET', null, true];
    }

    public function testTheDocumentNamesEveryRoute(): void
    {
        $this->client->request('GET', '/api/v1/openapi.json');
        self::assertSame(200, $this->client->getResponse()->getStatusCode());
        $document = self::document();
        self::assertSame('3.1.0', $document->openapi ?? null);
        $paths = array_keys((array) ($document->paths ?? null));
        $routes = [];
        foreach ($this->service(RouterInterface::class)->getRouteCollection() as $route) {
            if (str_starts_with($route->getPath(), '/api/')) {
                $routes[] = $route->getPath();
            }
        }
        sort($paths);
        sort($routes);
        self::assertSame($routes, $paths);
    }

    public function testATokenThatWasTakenBackOpensNothing(): void
    {
        $account = $this->logIn();
        $tokens = $this->service(AccessTokens::class);
        $secret = $tokens->make('Test', $account);
        $tokens->revoke($account->site, $tokens->reading($account->site)[0]->id);
        $this->nobody();
        $this->client->request('GET', '/api/v1/lots', server: ['HTTP_AUTHORIZATION' => 'Bearer '.$secret]);
        self::assertSame(401, $this->client->getResponse()->getStatusCode());
    }

    public function testAWrongTokenIsAnsweredAsDocumentedAndCounted(): void
    {
        foreach (['Bearer nonsense', 'bearer nonsense', 'Basic abc', ''] as $header) {
            $this->client->request('POST', '/api/v1/readings', server: ['HTTP_AUTHORIZATION' => $header]);
            $answer = (string) $this->client->getResponse()->getContent();
            self::assertResponseStatusCodeSame(401, $header);
            self::assertSame('', $this->wrongBy('/api/v1/readings', 'post', 401, $answer), $answer);
        }
        for ($try = 0; $try < 60; ++$try) {
            $this->client->request('GET', '/api/v1/lots', server: ['HTTP_AUTHORIZATION' => 'Bearer '.$try]);
        }
        self::assertResponseStatusCodeSame(429);
        self::assertResponseHasHeader('Retry-After');
        $answer = (string) $this->client->getResponse()->getContent();
        self::assertSame('', $this->wrongBy('/api/v1/lots', 'get', 429, $answer), $answer);
        $secret = $this->service(AccessTokens::class)->make('Test', $this->logIn());
        $this->nobody();
        $this->client->request('GET', '/api/v1/lots', server: ['HTTP_AUTHORIZATION' => 'bearer '.$secret]);
        self::assertResponseStatusCodeSame(200, 'the right one still opens');
    }

    private function wrongBy(string $path, string $method, int $status, string $answer): string
    {
        $document = self::document();
        $schema = $document->paths->{$path}->{$method}->responses->{$status}->content->{'application/json'}->schema;
        // A schema of the document by itself: its parts are named in it.
        $whole = (object) ['$ref' => str_replace('#/components/schemas/', '#/$defs/', $schema->{'$ref'})];
        $whole->{'$defs'} = json_decode(
            str_replace(
                '#/components/schemas/',
                '#/$defs/',
                json_encode($document->components->schemas, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_SLASHES),
            ),
        );
        $result = (new Validator())->validate(json_decode($answer), $whole);

        return $result->isValid() ? '' : (string) $result->error();
    }

    private static function document(): \stdClass
    {
        $document = json_decode((string) file_get_contents(__DIR__.'/../../../docs/api/openapi.json'));
        self::assertInstanceOf(\stdClass::class, $document);

        return $document;
    }
}
