<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\EntryPoint;

use Doctrine\ORM\EntityManagerInterface;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Routing\RouterInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\People\Person;
use Verjuicer\App\Site\People\RecentPasswordListener;
use Verjuicer\App\Site\People\Role;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Tenancy\Tenant;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Tests\App\KitchenTestCase;
use Verjuicer\Tests\Kitchen\RouteValues;
use Verjuicer\Tests\Kitchen\TestKitchen;

/** Every route of the router for every role, and for somebody of another site. A route that is not here fails. */
final class MatrixTest extends KitchenTestCase
{
    private const ANYBODY = [
        'api_assessment', 'api_batches', 'api_document', 'api_dues', 'api_lots', 'api_readings', 'api_record',
        'checker', 'healthz', 'keptz', 'language', 'login', 'logout', 'metrics', 'readyz', 'setup', 'setup_keep',
        'shared', 'shared_pdf',
        'stand_in_take',
        'welcome', 'who', 'who_is',
    ];

    /** Whoever is logged in. */
    private const READER = [
        'alarm', 'alarms', 'offline_words',
        'batch', 'batch_assessment', 'batch_live', 'batch_log', 'batch_record', 'board', 'board_live',
        'card', 'cooling', 'day', 'duty',
        'exchange', 'export', 'factor', 'factor_off', 'factor_on', 'hot_round', 'keeping', 'kitchen',
        'label', 'label_pdf', 'label_svg', 'labels', 'log', 'log_echo', 'lot', 'own', 'own_cooks', 'own_password',
        'own_language', 'own_pin',
        'own_sign_out', 'packet', 'packet_pdf', 'packets', 'pit', 'pits', 'plan', 'plan_after', 'plan_calendar',
        'plan_dish', 'plan_lists', 'plan_schedule', 'plans', 'product', 'products', 'recall', 'receiving',
        'recipe', 'recipes', 'resume', 'search', 'templates', 'theme', 'thermometer', 'thermometers', 'today', 'trend',
        'sensor', 'sensor_series', 'sensors', 'paper', 'paper_pdf', 'paper_scanned', 'papers',
        'site_enter', 'sites', 'trend_gaps', 'trend_took', 'trends', 'units', 'unsettled', 'wall', 'wall_live',
        'what_if',
    ];

    private const CREW = [
        'offline_tokens', 'alarm_put_off', 'alarm_settle', 'alarm_take', 'alarm_test', 'stand_in',
        'batch_begin', 'batch_new', 'batch_step', 'batch_steps', 'batch_void', 'check_keep', 'check_round', 'claim',
        'correction',
        'correction_keep', 'delivery_keep', 'delivery_new', 'divide', 'divide_keep', 'divide_pieces', 'doubted',
        'doubted_keep', 'facts', 'facts_keep', 'hot_round_keep', 'label_print', 'log_keep', 'lot_move', 'lot_put_right',
        'mix', 'packet_again', 'packet_ask',
        'pit_take_back', 'plan_dish_make', 'plan_make', 'pit_write', 'sensor_place',
        'thermometer_check', 'paper_trained',
    ];

    private const PITMASTER = [
        'own_cooks_hear', 'own_cooks_withdraw',
        'hold_unit_add', 'packet_share', 'packet_withdraw', 'pit_add', 'plan_dish_add', 'plan_dish_hear',
        'plan_dish_keep',
        'plan_dish_later',
        'plan_dish_mend', 'plan_dish_move',
        'plan_dish_remove', 'plan_meal', 'plan_new', 'plan_retire', 'plan_shifts', 'product_keep', 'product_new',
        'recipe_keep', 'recipe_new',
        'sensor_dead_letter', 'template_add', 'template_retire', 'thermometer_add',
    ];

    private const MANAGER = [
        'day_sign', 'keeping_clock', 'paper_keep', 'paper_scan',
        'device_register', 'device_revoke', 'devices', 'duty_contacts', 'duty_levels', 'duty_shift_add',
        'duty_shift_remove', 'import', 'import_go_on', 'import_stop', 'people', 'people_add', 'people_log',
        'person', 'person_do', 'person_keep', 'sensor_register', 'sensor_renew', 'sensor_revoke', 'site', 'site_keep',
        'token_make', 'token_revoke', 'tokens',
    ];

    private const OWNER = ['site_new', 'site_open', 'site_people'];

    private const RANKS = [self::ANYBODY, self::READER, self::CREW, self::PITMASTER, self::MANAGER, self::OWNER];

    private const NO_ID = '#^[^{]*$#';

    /** Days, trends and files of the site of whoever asks. */
    private const OF_WHO_ASKS = [
        'paper', 'paper_keep', 'paper_trained', 'day', 'day_sign', 'trend', 'trend_took', 'export', 'recall',
    ];

    public function testEveryRouteStandsHereOnce(): void
    {
        $named = array_merge(...self::RANKS);
        self::assertSame([], array_diff(array_keys($this->routes()), $named), 'say who may');
        self::assertSame([], array_diff($named, array_keys($this->routes())), 'gone');
        self::assertSame($named, array_unique($named));
    }

    #[DataProvider('roles')]
    public function testARoleMayWhatItMayAndNoMore(?Role $role, int $rank): void
    {
        $wrong = [];
        $this->client->disableReboot();
        foreach ($this->requests() as [$name, $method, $path]) {
            $role === null ? $this->client->restart() : $this->logInAs($this->site(), $role);
            $this->client->request($method, $path);
            $response = $this->client->getResponse();
            $isSentToLogin = $response->headers->get('Location') === '/login';
            // Whoever logs out without the token of the form, or is at no shared tablet, is refused for that.
            // Machines have tokens, and no session: ProbesTest and ApiTest say what they may.
            $isElse = \in_array($name, ['logout', 'who', 'who_is'], true) || str_starts_with($name, 'api_');
            $isRefused = !$isElse && ($response->getStatusCode() === 403 || $isSentToLogin);
            $least = self::least($name);
            if ($isRefused === ($rank >= $least)) {
                $wrong[] = "$method $path: {$response->getStatusCode()}";
            }
            if ($response->getStatusCode() >= 500) {
                $wrong[] = "$method $path fails";
            }
        }
        self::assertSame([], $wrong);
    }

    /** @return iterable<string, array{Role|null, int}> */
    public static function roles(): iterable
    {
        yield 'nobody' => [null, 0];
        yield 'reader' => [Role::Reader, 1];
        yield 'inspector' => [Role::Inspector, 1];
        yield 'crew' => [Role::Crew, 2];
        yield 'pitmaster' => [Role::Pitmaster, 3];
        yield 'manager' => [Role::Manager, 4];
        yield 'owner' => [Role::Owner, 5];
    }

    #[DataProvider('ofOthers')]
    public function testSomebodyOfAnotherSiteFindsNothing(Role $role): void
    {
        $other = new Site('Elsewhere', 'America/Chicago', TemperatureUnit::Fahrenheit, 0, 'us-food-code-2022');
        $this->service(Tenant::class)->enter($other->id);
        $this->service(EntityManagerInterface::class)->persist($other);
        $this->service(EntityManagerInterface::class)->flush();
        $before = $this->rows();
        $found = [];
        foreach ($this->requests() as [$name, $method, $path, $template]) {
            $isOfNobody = \in_array($name, [...self::ANYBODY, 'theme', 'units'], true);
            if ($isOfNobody || preg_match(self::NO_ID, $template) === 1) {
                continue;
            }
            $this->logInAs($other, $role);
            $this->client->request($method, $path, ['when' => 'now', 'sure' => '1']);
            $status = $this->client->getResponse()->getStatusCode();
            if (!\in_array($status, [403, 404], true) && !\in_array($name, self::OF_WHO_ASKS, true)) {
                $found[] = "$method $path: $status";
            }
            $text = (string) $this->client->getResponse()->getContent();
            if (str_contains($text, 'Lamb shoulder') || str_contains($text, 'Mara Rook')) {
                $found[] = "$method $path tells";
            }
        }
        self::assertSame([], $found);
        self::assertSame($before, $this->rows(), 'and wrote nothing');
    }

    /** @return iterable<string, array{Role}> */
    public static function ofOthers(): iterable
    {
        foreach (Role::cases() as $role) {
            yield $role->value => [$role];
        }
    }

    private static function least(string $name): int
    {
        foreach (self::RANKS as $rank => $names) {
            if (\in_array($name, $names, true)) {
                return $rank;
            }
        }

        return \PHP_INT_MAX;
    }

    /** @return array<string, array{string, list<string>}> path and methods by name */
    private function routes(): array
    {
        $routes = [];
        foreach ($this->service(RouterInterface::class)->getRouteCollection() as $name => $route) {
            if (!str_starts_with($name, '_')) {
                $routes[$name] = [$route->getPath(), array_values($route->getMethods())];
            }
        }

        return $routes;
    }

    /** @return list<array{string, string, string, string}> name, method, path, and the path as the router has it */
    private function requests(): array
    {
        $requests = [];
        foreach ($this->routes() as $name => [$template, $methods]) {
            foreach ($methods as $method) {
                $requests[] = [$name, $method, $this->filled($name, $template), $template];
            }
        }

        return $requests;
    }

    private function filled(string $name, string $path): string
    {
        $ids = [
            'scan' => 'SELECT gen_random_uuid()',
            'shift' => 'SELECT id FROM duty_shift ORDER BY id LIMIT 1',
            'id' => str_starts_with($name, 'person') || \in_array($name, ['device_revoke', 'site_enter'], true)
                ? "SELECT a.id FROM account a JOIN person p ON p.id = a.person_id WHERE p.login = 'ike'"
                : 'SELECT id FROM batch WHERE tag = 7',
        ] + RouteValues::QUERIES;
        $words = [
            'day' => '2026-11-24', 'stage' => 'cook', 'group' => 'by_rule', 'theme' => 'day', 'language' => 'es',
            'kind' => str_starts_with($name, 'paper') ? 'cooling' : 'lot',
            'units' => 'own', 'number' => '1', 'secret' => 'nobody-was-invited-by-this', 'token' => str_repeat('a', 43),
            'what' => [
                'person_do' => 'sign-out',
                'export' => 'events',
                'recall' => Uuid::v7()->toRfc4122(),
            ][$name] ?? '',
        ];

        return (string) preg_replace_callback(
            '/\{(\w+)\}/',
            fn (array $part): string => $words[$part[1]] ?? $this->words($ids[$part[1]]),
            $path,
        );
    }

    private function site(): Site
    {
        $site = $this->service(EntityManagerInterface::class)->getRepository(Site::class)->findOneBy([]);
        self::assertInstanceOf(Site::class, $site);

        return $site;
    }

    private function logInAs(Site $site, Role $role): void
    {
        $entities = $this->service(EntityManagerInterface::class);
        $login = 'as-'.$role->value;
        $this->service(Tenant::class)->enter($site->id);
        $account = $entities->getRepository(Account::class)->findOneBy(['name' => 'As '.$role->value]);
        if ($account === null) {
            $site = $entities->find(Site::class, $site->id);
            self::assertInstanceOf(Site::class, $site);
            $initials = 'X'.strtoupper($role->value[0]);
            $account = new Account($site, new Person($login), 'As '.$role->value, $initials, $role);
            $this->service(Tenant::class)->hold($login);
            $entities->persist($account);
            $entities->flush();
        }
        $this->client->loginUser($account, tokenAttributes: [
            RecentPasswordListener::CONFIRMED_AT => (new \DateTimeImmutable(TestKitchen::MOMENT))->getTimestamp(),
        ]);
    }

    /** @return array<string, mixed> how many rows of each recorded kind there are */
    private function rows(): array
    {
        $rows = $this->connection()->fetchAssociative(
            <<<'SQL'
            SELECT (SELECT count(*) FROM event) AS events, (SELECT count(*) FROM batch) AS batches,
                   (SELECT count(*) FROM site_event) AS pits, (SELECT count(*) FROM lot) AS lots,
                   (SELECT count(*) FROM thermometer_check) AS checks, (SELECT count(*) FROM batch_fact) AS facts,
                   (SELECT count(*) FROM plan_dish WHERE NOT is_removed) AS dishes,
                   (SELECT count(*) FROM account_change) AS people, (SELECT count(*) FROM day_sign) AS signs
            SQL,
        );

        return $rows === false ? [] : $rows;
    }
}
