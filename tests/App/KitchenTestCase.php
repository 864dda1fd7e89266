<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Cache\CacheItemPoolInterface;
use Symfony\Bundle\FrameworkBundle\KernelBrowser;
use Symfony\Bundle\FrameworkBundle\Test\WebTestCase;
use Symfony\Component\Clock\Test\ClockSensitiveTrait;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\Security\Core\Authentication\Token\Storage\TokenStorageInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Chain\RecordingClock;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\People\RecentPasswordListener;
use Verjuicer\App\Site\Tenancy\Tenant;
use Verjuicer\Tests\Kitchen\TestKitchen;

/** The kitchen of the tests over a real database, at a moment that is always the same; every test is rolled back. */
abstract class KitchenTestCase extends WebTestCase
{
    use ClockSensitiveTrait;

    protected KernelBrowser $client;
    private string $keys = '';

    protected function setUp(): void
    {
        // The key the kitchen was loaded with; what is rolled back was never sealed.
        $this->keys = TestKitchen::copyOfKeys();
        $_SERVER['VERJUICER_KEYS'] = $_ENV['VERJUICER_KEYS'] = $this->keys;
        self::mockTime(TestKitchen::MOMENT);
        $this->client = self::createClient();
        // libxml parses ten times faster; whether pages are sound HTML is tested in the browser.
        $this->client->useHtml5Parser(false);
        // What another test left to be made is not awaited here.
        $forecasts = self::getContainer()->get('cache.forecasts');
        self::assertInstanceOf(CacheItemPoolInterface::class, $forecasts);
        $forecasts->deleteItems(array_map(static fn (int $place): string => "owed.$place", range(0, 255)));
        $site = $this->connection()->fetchOne('SELECT id FROM site WHERE is_practice');
        self::assertIsString($site);
        // As the application is served: by a role that owns nothing and sees one site.
        $this->connection()->executeStatement('SET ROLE verjuicer_app');
        $this->service(Tenant::class)->enter(Uuid::fromString($site));
    }

    protected function tearDown(): void
    {
        parent::tearDown();
        unset($_SERVER['VERJUICER_KEYS'], $_ENV['VERJUICER_KEYS']);
        $_ENV['FORECAST_AFTER_US'] = '-1';
        (new Filesystem())->remove($this->keys);
    }

    /** From the first entry on: forecasts are made after each answer, as the application does. */
    protected function forecastsAreMade(): void
    {
        $_ENV['FORECAST_AFTER_US'] = '0';
    }

    /** As whoever runs the machine, with all sites before them. */
    protected function asOwner(): void
    {
        $this->connection()->executeStatement('RESET ROLE');
    }

    /** A manager said why: the moment of the test is before, or long after, the last thing the kitchen recorded. */
    protected function trustTheClock(): void
    {
        $by = $this->logIn('dell');
        $now = $this->service(Now::class)->instant();
        $this->service(Ledger::class)->write(
            $by->site,
            fn () => $this->service(RecordingClock::class)->vouch(Uuid::v7(), $by, $now, $now, 'a test'),
            trusts: true,
        );
    }

    protected function logIn(string $login = 'mara'): Account
    {
        $this->service(Tenant::class)->enter(
            Uuid::fromString(
                $this->words(
                    "SELECT site_id FROM account a JOIN person p ON p.id = a.person_id WHERE p.login = '$login'",
                ),
            ),
        );
        $account = $this->service(EntityManagerInterface::class)
            ->createQuery('SELECT a FROM '.Account::class.' a JOIN a.person p WHERE p.login = :login')
            ->setParameter('login', $login)
            ->getOneOrNullResult();
        self::assertInstanceOf(Account::class, $account);
        // As if the password had been typed just now: where it is asked for again it is not.
        $this->client->loginUser($account, tokenAttributes: [
            RecentPasswordListener::CONFIRMED_AT => (new \DateTimeImmutable(TestKitchen::MOMENT))->getTimestamp(),
        ]);

        return $account;
    }

    /** A machine has no session. */
    protected function nobody(): void
    {
        $this->client->getCookieJar()->clear();
        $storage = self::getContainer()->get('security.untracked_token_storage');
        self::assertInstanceOf(TokenStorageInterface::class, $storage);
        $storage->setToken(null);
    }

    /**
     * @template T of object
     *
     * @param class-string<T> $class
     *
     * @return T
     */
    protected function service(string $class): object
    {
        $service = self::getContainer()->get($class);
        self::assertInstanceOf($class, $service);

        return $service;
    }

    protected function connection(): Connection
    {
        return $this->service(Connection::class);
    }

    protected function batch(int $tag): Batch
    {
        $site = $this->logIn()->site;
        $batch = $this->service(Batches::class)->tagged($site, $tag);
        self::assertInstanceOf(Batch::class, $batch);

        return $batch;
    }

    protected function path(int $tag): string
    {
        return '/batches/'.$this->batch($tag)->id->toRfc4122();
    }

    /** @param array<string, string> $more */
    protected function keep(string $line, array $more = [], bool $isSure = false): Crawler
    {
        $form = $this->client->request('GET', '/log')->filter('form[action="/log"]')->form();
        if ($isSure) {
            $typed = ['line' => $line, 'sure' => '1'] + $more + $form->getPhpValues();

            return $this->client->request('POST', '/log', $typed);
        }

        return $this->client->submit($form, ['line' => $line] + $more);
    }

    /** How many statements are sent to the database while something is done. */
    protected function statements(\Closure $do): int
    {
        $log = $this->service(StatementLog::class);
        $before = $log->count;
        $do();

        return $log->count - $before;
    }

    protected function words(string $sql): string
    {
        $words = $this->asked($sql);
        self::assertIsString($words);

        return $words;
    }

    protected function number(string $sql): int
    {
        $count = $this->asked($sql);
        self::assertIsInt($count);

        return $count;
    }

    /** What stands in the database, in whatever site. */
    private function asked(string $sql): mixed
    {
        $role = $this->connection()->fetchOne('SELECT current_user');
        $this->asOwner();
        $value = $this->connection()->fetchOne($sql);
        $this->connection()->executeStatement('SET ROLE '.(\is_string($role) ? $role : 'verjuicer_app'));

        return $value;
    }
}
