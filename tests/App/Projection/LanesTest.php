<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Projection;

use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Thermometer\Thermometer;
use Verjuicer\App\Ledger\Check\AccuracyChecks;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\App\Projection\Projections;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Tests\App\KitchenTestCase;
use Verjuicer\Tests\App\StatementLog;
use Verjuicer\Tests\Kitchen\TestKitchen;

/**
 * What is shown of a batch is made after it is kept: it can fail, be old or be missing, and takes no entry and no page
 * with it.
 */
final class LanesTest extends KitchenTestCase
{
    protected function tearDown(): void
    {
        BrittleProjection::$isBroken = false;
        BrittleProjection::$version = 1;
        parent::tearDown();
    }

    public function testWhatCannotBeShownIsKeptAllTheSameAndSaid(): void
    {
        $this->logIn();
        BrittleProjection::$isBroken = true;
        $this->keep('7 176');
        self::assertResponseStatusCodeSame(303);
        self::assertSame(
            '{"f": 176}',
            $this->words("SELECT (members->'temp')::text FROM event ORDER BY seq DESC LIMIT 1"),
            'it is in the record',
        );
        $this->keep('7 177');
        self::assertResponseStatusCodeSame(303, 'and so is every later one');
        $of7 = 'WHERE batch_id = (SELECT batch_id FROM open_tag WHERE tag = 7)';
        self::assertSame('broken on purpose', $this->words("SELECT problem FROM projection_state $of7"));
        self::assertSame(1, $this->service(Projections::class)->pending($this->logIn()->site));
        self::assertStringContainsString(
            '1 changed record is not judged again yet',
            $this->client->request('GET', '/find?words=lamb')->filter('main')->text(),
        );
        BrittleProjection::$isBroken = false;
        $this->keep('7 178');
        self::assertSame(
            0,
            $this->number("SELECT count(*) FROM projection_state $of7 AND (made < head OR problem IS NOT NULL)"),
            'the next change makes it anew',
        );
        self::assertSame('178', $this->lane(7)?->last?->temp->number());
    }

    public function testALaneThatCannotBeReadIsNamedAndTakesNoPageDown(): void
    {
        $this->logIn();
        $path = $this->path(7);
        $this->connection()->executeStatement(
            "UPDATE board_lane SET facts = '{}', version = version + 1000 WHERE tag = 7",
        );
        $board = $this->client->request('GET', '/');
        self::assertResponseIsSuccessful();
        self::assertStringContainsString(
            'Tag 7 · Lamb shoulder Cannot be judged right now',
            $board->filter('main')->text(),
        );
        self::assertCount(13, $board->filter('li .tag'), 'the others are there');
        self::assertStringContainsString(
            'Tag 7 · Lamb shoulder Cannot be judged right now',
            $this->client->request('GET', '/unsettled')->filter('main')->text(),
            'and no list of what is open passes over it',
        );
        $page = $this->client->request('GET', $path);
        self::assertResponseIsSuccessful();
        self::assertStringContainsString('annot be judged right now', $page->filter('[role=alert]')->text());
        self::assertStringContainsString('171 °F', $page->filter('#everything')->text(), 'its record is there');
        $this->keep('7 176');
        self::assertResponseStatusCodeSame(303);
        self::assertSame('176', $this->lane(7)?->last?->temp->number(), 'the next entry makes it anew');
    }

    public function testAnOlderShapeIsMadeAnewWhenItIsMetAndAllOfThemAfterAnUpdate(): void
    {
        $this->logIn();
        $this->connection()->executeStatement(
            "UPDATE board_lane SET facts = '{\"of\": \"an older version\"}' WHERE tag = 7",
        );
        BrittleProjection::$version = 2;
        self::assertSame('171', $this->lane(7)?->last?->temp->number());
        $old = "SELECT count(*) FROM projection_state WHERE shape NOT LIKE '%brittle 2%'";
        self::assertGreaterThan(0, $this->number($old));
        $this->service(Projections::class)->rebuild(true);
        self::assertSame(0, $this->number($old));
    }

    public function testAForecastThatCannotBeMadeIsLeftOut(): void
    {
        $this->forecastsAreMade();
        $this->logIn();
        $this->connection()->executeStatement(
            'UPDATE product '
."SET doneness = '{\"from\": \"hot\", \"to\": 2030, \"unit\": \"F\", \"feel\": \"\"}' WHERE name = 'Lamb shoulder'",
        );
        $this->keep('7 176');
        self::assertResponseStatusCodeSame(303);
        $lane = $this->lane(7);
        self::assertSame('176', $lane?->last?->temp->number());
        self::assertNull($lane->outlook);
        $this->client->request('GET', $this->path(7));
        self::assertResponseIsSuccessful();
    }

    public function testAnEndedBatchWithAnOpenActionStaysDueUntilItIsSettled(): void
    {
        $this->logIn();
        $path = $this->path(18);
        $this->keep('18 serve');
        $due = fn (): string => implode(
            '',
            $this->client
                ->request('GET', '/')
                ->filter('[data-due]')
                ->each(static fn (Crawler $one): string => $one->text()),
        );
        self::assertStringContainsString('Tag 18', $due());
        self::assertSame(
            ['3', '5', '7'],
            \array_slice(
                $this->client->getCrawler()->filter('li .tag')->each(static fn (Crawler $one): string => $one->text()),
                0,
                3,
            ),
        );
        self::assertNotContains(
            '18',
            $this->client->getCrawler()->filter('li .tag')->each(static fn (Crawler $one): string => $one->text()),
            'it is no open batch any more',
        );
        while (
            ($forms = $this->client->request('GET', $path)->filter('#actions form input[name=finding]'))->count() > 0
        ) {
            $this->client->submit(
                $forms
                    ->first()
                    ->closest('form')
                    ?->form(['other' => 'thrown away, guests were told']) ?? self::fail(),
            );
        }
        self::assertStringNotContainsString('Tag 18', $due());
    }

    /**
     * A check of a thermometer marks what it touches within its transaction; what that means is worked out once it is
     * committed.
     */
    public function testNothingIsJudgedWhileASiteIsLocked(): void
    {
        $by = $this->logIn();
        $thermometer = $this->thermometer('T1');
        $log = $this->service(StatementLog::class);
        $log->since();
        $ice = Temperature::fahrenheit('32');
        $this->service(AccuracyChecks::class)->add(
            Uuid::v7(),
            $thermometer,
            $by,
            Instant::parse(TestKitchen::MOMENT),
            'ice',
            $ice,
            Temperature::fahrenheit('36.5'),
        );
        $sent = $log->since();
        $at = static fn (string $part): array => array_keys(
            array_filter($sent, static fn (string $sql): bool => str_contains($sql, $part)),
        );
        $first = static fn (string $part): int => $at($part)[0] ?? self::fail($part.' was not sent');
        $commit = $first('COMMIT');
        self::assertLessThan($commit, $first('INSERT INTO thermometer_check'));
        self::assertLessThan($commit, $first('INSERT INTO projection_state'), 'what it touches is marked with it');
        self::assertGreaterThan($commit, $first('jsonb_agg'), 'no record is read before');
        self::assertGreaterThan($commit, $first('SET made'));
        self::assertCount(1, $at('INSERT INTO projection_state'), 'however many it touches');
        self::assertSame('not_shown', $this->lane(21)?->verdict->value, 'and is there when it is looked at');
    }

    /** What a bought food is reheated to is its own on the board, in its countdown and in its finding. */
    public function testTheLimitOfABoughtFoodIsItsOwn(): void
    {
        $this->logIn();
        $form = $this->client->request('GET', '/products/new')->selectButton('Save')->form();
        $this->client->submit($form, [
            'name' => 'Bought sausage',
            'animal' => 'pork',
            'form' => 'rte_commercial',
            'integrity' => 'intact',
        ]);
        self::assertResponseStatusCodeSame(303);
        $page = $this->client->request('GET', '/batches/new');
        $this->client->submit(
            $page
                ->selectButton('Start batch')
                ->form([
                    'product' => (string) $page->filter('option:contains("Bought sausage")')->attr('value'),
                    'tag' => '77',
                    'temp' => '40',
                    'thermometer' => 'T1',
                ]),
        );
        $this->keep('77 reheat');
        $this->keep('77 90 T1', ['back' => '/']);
        $due = $this->client->request('GET', '/')->filter('[data-due]:contains("Tag 77")')->text();
        $said = $this->client->request('GET', $this->path(77))->filter('[data-rule=reheat]')->text();
        self::assertStringContainsString('must reach 135 °F', $due);
        self::assertStringContainsString('Must reach 135 °F', $said);
        self::assertStringNotContainsString('165', $due.$said);
    }

    private function lane(int $tag): ?Lane
    {
        return $this->service(Lanes::class)->of($this->batch($tag));
    }

    private function thermometer(string $label): Thermometer
    {
        $thermometer = $this->service(\Doctrine\ORM\EntityManagerInterface::class)
            ->getRepository(Thermometer::class)
            ->findOneBy(['label' => $label]);
        self::assertInstanceOf(Thermometer::class, $thermometer);

        return $thermometer;
    }
}
