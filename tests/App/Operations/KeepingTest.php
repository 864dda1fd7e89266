<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use Doctrine\DBAL\Exception\DriverException;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Uid\Uuid;
use Verjuicer\Tests\App\KitchenTestCase;

/** What is logged is kept, once, for good; what cannot be kept is not lost. */
final class KeepingTest extends KitchenTestCase
{
    public function testALineBecomesAnEventAndIsToldBack(): void
    {
        $this->logIn('ike');
        $this->keep('7.2 164 T3 -5');
        self::assertResponseRedirects('/');
        self::assertStringContainsString(
            'Tag 7, Lamb shoulder · piece 2, core · 164 °F · T3 · 5 min ago',
            $this->client->followRedirect()->filter('main [role=status]')->text(),
        );
        $row = $this->connection()->fetchAssociative(
            'SELECT initials, type, members, extract(epoch FROM recorded_at - at)::int AS late FROM event '
            .'ORDER BY seq DESC LIMIT 1',
        );
        self::assertIsArray($row);
        self::assertSame(['IT', 'reading', 300], [$row['initials'], $row['type'], $row['late']]);
        self::assertJsonStringEqualsJsonString(
            '{"temp":{"f":164},"piece":2,"spot":"core","thermometer":"T3"}',
            \is_string($row['members']) ? $row['members'] : '',
        );
    }

    public function testATagAndNothingElseOpensItsBatch(): void
    {
        $path = $this->path(18);
        $this->keep('18');
        self::assertResponseRedirects($path);
        self::assertStringContainsString(
            'No open batch has tag 99',
            $this->keep('99 203')->filter('[role=alert]')->text(),
        );
    }

    public function testTheThermometerOfTheLastReadingIsFilledIn(): void
    {
        $this->logIn();
        $this->client->request('GET', '/log/echo', ['line' => '5 133']);
        self::assertSame(
            [
                'ok' => true,
                'sentence' => 'Tag 5, Goat leg · piece 1, core · 133 °F · T3 · now',
                'offers' => [],
                'spot' => '',
            ],
            json_decode((string) $this->client->getResponse()->getContent(), true),
        );
    }

    public function testARetriedRequestIsKeptOnce(): void
    {
        $this->logIn();
        $form = $this->client
            ->request('GET', '/log')
            ->filter('form[action="/log"]')
            ->form(['line' => '7 173']);
        $before = $this->number('SELECT count(*) FROM event');
        $this->client->submit($form);
        self::assertResponseStatusCodeSame(303);
        $this->client->submit($form);
        self::assertResponseStatusCodeSame(303);
        self::assertSame($before + 1, $this->number('SELECT count(*) FROM event'));

        $form['line'] = '7 174';
        $page = $this->client->submit($form);
        self::assertResponseStatusCodeSame(409, 'the same id for something else');
        self::assertSame('7 174', $page->filter('#line')->attr('value'), 'what was typed is still there');
        self::assertSame($before + 1, $this->number('SELECT count(*) FROM event'));
    }

    /** @param non-empty-string $said */
    #[DataProvider('refusals')]
    public function testWhatCannotBeKeptComesBackWithWhatToDo(string $line, int $status, string $said): void
    {
        $this->logIn();
        $before = $this->number('SELECT count(*) FROM event');
        $page = $this->keep($line);
        self::assertResponseStatusCodeSame($status);
        self::assertStringContainsString($said, $page->filter('main')->text());
        self::assertSame($line, $page->filter('#line')->attr('value'));
        self::assertSame($before, $this->number('SELECT count(*) FROM event'));
    }

    /** @return iterable<array{string, int, string}> */
    public static function refusals(): iterable
    {
        yield ['99 140', 422, 'No open batch has tag 99'];
        yield ['11 140', 422, 'No open batch has tag 11'];
        yield ['7.5 140', 422, 'This batch has 1, 2, 3, 4'];
        yield ['7 1400', 422, '"1400" is not a temperature'];
        yield ['7 48', 422, 'Is this right?'];
        yield ['7 77', 422, 'Check the unit'];
        yield ['<b>7', 422, '"<b>7" is not a tag'];
    }

    public function testADoubtedReadingIsKeptWhenSomebodyIsSure(): void
    {
        $this->logIn();
        $page = $this->keep('7 48');
        $this->client->submit($page->selectButton('Yes, save it')->form());
        self::assertResponseStatusCodeSame(303);
        self::assertSame(
            '7',
            $this->words(
                'SELECT tag::text FROM event JOIN batch ON batch.id = batch_id '
."WHERE (members->'temp'->>'f')::numeric = 48 ORDER BY event.seq DESC LIMIT 1",
            ),
        );
    }

    public function testWithoutItsTokenNothingIsKept(): void
    {
        $this->logIn();
        $this->client->request('POST', '/log', ['line' => '7 173', 'id' => Uuid::v7()->toRfc4122()]);
        self::assertResponseStatusCodeSame(422);
        self::assertSelectorExists('#line[value="7 173"]');
    }

    public function testUndoAddsAnEventAndStrikesTheEntry(): void
    {
        $path = $this->path(7);
        $this->keep('7 180', ['back' => $path]);
        $before = $this->number('SELECT count(*) FROM event');
        $page = $this->client->followRedirect();
        $this->client->submit($page->selectButton('Undo')->form());
        $page = $this->client->followRedirect();
        self::assertSame($before + 1, $this->number('SELECT count(*) FROM event'));
        self::assertStringContainsString('180 °F', $page->filter('s')->text());
    }

    public function testTakingBackNeedsAReason(): void
    {
        $page = $this->client->click($this->client->request('GET', $this->path(7))->selectLink('Correct')->link());
        $this->client->submit($page->selectButton('Void entry')->form(['reason' => ' ']));
        self::assertResponseStatusCodeSame(422);
        self::assertSelectorTextContains('#problem-reason', 'Enter a reason for the correction');
    }

    #[DataProvider('changes')]
    public function testTheDatabaseRefusesToChangeWhatIsRecorded(string $sql): void
    {
        foreach (['permission denied', 'only ever added'] as $why) {
            try {
                $this->connection()->transactional(static fn ($connection) => $connection->executeStatement($sql));
                self::fail('changed');
            } catch (DriverException $problem) {
                self::assertStringContainsString($why, $problem->getMessage());
            }
            $this->asOwner();
        }
    }

    /** @return iterable<array{string}> */
    public static function changes(): iterable
    {
        yield ["UPDATE event SET type = 'note'"];
        yield ['DELETE FROM event'];
        yield ['TRUNCATE event CASCADE'];
        yield ['UPDATE batch SET pieces = 1'];
        yield ['DELETE FROM thermometer_check'];
    }

    public function testABatchIsBegunOnceAndItsTagIsTaken(): void
    {
        $this->logIn();
        $page = $this->client->request('GET', '/batches/new');
        $product = (string) $page->filter('option:contains("Lamb leg")')->attr('value');
        $form = $page
            ->selectButton('Start batch')
            ->form([
                'product' => $product,
                'tag' => '7',
                'weight' => '4,4999',
                'temp' => '38.2',
                'thermometer' => 'T1',
                'injected' => '1',
            ]);
        $this->client->submit($form);
        self::assertResponseStatusCodeSame(409);
        self::assertSelectorTextContains('#problem-tag', 'another');
        self::assertInputValueSame('weight', '4,4999');
        $form['tag'] = '42';
        $this->client->submit($form);
        $first = $this->client->getResponse()->headers->get('Location');
        $this->client->submit($form);
        self::assertSame($first, $this->client->getResponse()->headers->get('Location'));
        self::assertSame(1, $this->number('SELECT count(*) FROM batch WHERE tag = 42'));
        self::assertSame(
            4499,
            $this->number('SELECT raw_grams FROM batch WHERE tag = 42'),
            'never rounded up to where fewer ovens will do',
        );
        self::assertSame(
            3,
            $this->number('SELECT count(*) FROM event WHERE batch_id = (SELECT id FROM batch WHERE tag = 42)'),
        );
    }

    public function testEveryFieldOfANewBatchSaysWhatIsWrongAndKeepsWhatWasTyped(): void
    {
        $this->logIn();
        $form = $this->client
            ->request('GET', '/batches/new')
            ->selectButton('Start batch')
            ->form([
                'tag' => 'x',
                'pieces' => '0',
                'weight' => 'heavy',
                'temp' => 'cold',
                'start' => 'cook',
                'set' => '9999',
            ]);
        $page = $this->client->submit($form);
        self::assertResponseStatusCodeSame(422);
        self::assertCount(6, $page->filter('[id^=problem-]'));
        self::assertSame('heavy', $page->filter('[name=weight]')->attr('value'));
    }

    public function testStepsAreKeptWithWhatTheySay(): void
    {
        $path = $this->path(7);
        $form = $this->client
            ->request('GET', $path.'/steps')
            ->filter('input[name=type][value=rest]')
            ->closest('form')
            ?->form(['method' => 'towels', 'when' => '3']);
        self::assertNotNull($form);
        $this->client->submit($form);
        self::assertStringContainsString(
            'Rest · towels',
            $this->client->followRedirect()->filter('#everything')->text(),
        );
    }
}
