<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Browser;

use Symfony\Component\Process\Process;
use Verjuicer\Tests\Kitchen\RouteValues;

/** Walks every page the router knows. A new route is among them by itself; one that is no page is named here. */
abstract class PageWalkCase extends BrowserTestCase
{
    private const NO_PAGES = [
        'export',
        'packet_pdf',
        'paper_pdf',
        'paper_scanned',
        'checker', // a file: CheckerTest
        'shared',
        'shared_pdf',
        'logout',
        'healthz',
        'readyz',
        'keptz',
        'metrics',
        'theme',
        'language',
        'units',
        'resume', // leads on where nothing waits
        'batch_live',
        'batch_record',
        'batch_assessment',
        'board_live',
        'wall_live',
        'log_echo',
        'label_svg',
        'label_pdf',
        'plan_calendar',
        'sensor_series',
        'offline_tokens',
        'offline_words',
        'api_assessment', // for machines, with tokens: ApiTest
        'api_batches',
        'api_document',
        'api_dues',
        'api_lots',
        'api_record',
    ];

    private const INVITED_BY = 'walnut-lattice-morning';

    /** What the parameters of addresses are filled with: a query for one value, or the values. */
    private const FILLED = [
        'batch' => ['id' => 'SELECT id FROM batch WHERE tag IN (7, 12, 18, 24) ORDER BY tag'],
        'check_round' => ['id' => 'SELECT id FROM batch WHERE tag = 24 LIMIT 1'],
        'divide' => ['id' => 'SELECT id FROM batch WHERE tag = 21 LIMIT 1'],
        'person' => ['id' => "SELECT id FROM account WHERE initials = 'IT'"],
        'paper' => ['kind' => ['time_control', 'preserving']],
        'welcome' => ['secret' => [self::INVITED_BY]],
        'packet' => ['id' => 'SELECT id FROM packet LIMIT 1'],
        'recall' => ['kind' => ['lot'], 'what' => "SELECT id FROM lot WHERE number = 'RR-4471'"],
        'trend' => ['group' => ['by_rule', 'by_hour', 'by_product', 'by_unit']],
        '' => [
            'id' => 'SELECT id FROM batch WHERE tag = 7 LIMIT 1',
            'day' => 'SELECT min(begun_at)::date FROM batch',
            'stage' => ['cook'],
        ] + RouteValues::QUERIES,
    ];

    /** Pages as somebody finds them who has filled something in. */
    private const ASKED = [
        '/log?line=7%20203',
        '/find?words=pork',
        '/what-if?method=counter&weight=2&start=180',
        '/?at=Drum',
    ];

    /** What only a manager can make, and the walk opens: a packet and an invitation. */
    protected function prepare(): void
    {
        $this->askForAPacket();
        $this->column(
            "WITH p AS (
                    INSERT INTO person (id, login, password, invite_hash, invite_until)
                    VALUES (gen_random_uuid(), 'guest', '',
                        encode(sha256('".self::INVITED_BY."'), 'hex'), now() + interval '1 day')
                    ON CONFLICT DO NOTHING RETURNING id
                 )
                 INSERT INTO account (id, site_id, person_id, name, initials, role)
                 SELECT gen_random_uuid(), s.id, p.id, 'Guest', 'GU', 'crew' FROM site s, p RETURNING id",
        );
    }

    private function askForAPacket(): void
    {
        if ($this->column('SELECT id FROM packet') !== []) {
            return;
        }
        $this->open('/packets');
        $day = $this->column('SELECT min(begun_at)::date FROM batch')[0];
        $this->browser->executeScript(
            "document.querySelector('[name=from]').value = document.querySelector('[name=to]').value = arguments[0]",
            [$day],
        );
        $this->send($this->find('form:has([name=from]) .key-main'));
    }

    /** @return list<string> */
    protected function addresses(): array
    {
        $process = new Process([\PHP_BINARY, 'bin/console', 'debug:router', '--format=json'], \dirname(__DIR__, 2));
        $process->mustRun();
        /** @var array<string, array{path: string, method: string}> $routes */
        $routes = json_decode($process->getOutput(), true, flags: \JSON_THROW_ON_ERROR);
        $addresses = [];
        foreach ($routes as $name => $route) {
            if (
                str_starts_with($name, '_')
                || \in_array($name, self::NO_PAGES, true)
                || (!str_contains($route['method'], 'GET') && $route['method'] !== 'ANY')
            ) {
                continue;
            }
            $found = [$route['path']];
            preg_match_all('/\{(\w+)\}/', $route['path'], $parameters);
            foreach ($parameters[1] as $parameter) {
                $of = self::FILLED[$name][$parameter] ?? self::FILLED[''][$parameter] ?? null;
                self::assertNotNull($of, "$name: say what {{$parameter}} is filled with, or that it is no page");
                $filled = [];
                foreach ($found as $path) {
                    foreach (\is_array($of) ? $of : $this->column($of) as $value) {
                        $filled[] = str_replace('{'.$parameter.'}', $value, $path);
                    }
                }
                $found = $filled;
            }
            array_push($addresses, ...$found);
        }

        return [...$addresses, ...self::ASKED];
    }

    /** @return array{int, string} the status and what is answered to a request of the page that is open */
    protected function answered(string $path): array
    {
        $answer = $this->browser->executeAsyncScript(
            'const done = arguments[arguments.length - 1];'
            .'fetch(arguments[0]).then(async (answer) => done([answer.status, await answer.text()]))'
            .'.catch(() => done([0, ""]))',
            [$path],
        );
        self::assertIsArray($answer);
        [$status, $page] = $answer;
        self::assertIsInt($status);
        self::assertIsString($page);

        return [$status, $page];
    }

    /** @return list<string> */
    protected function faults(): array
    {
        $found = $this->browser->executeScript(
            <<<'JS'
            const faults = [];
            const heads = document.querySelectorAll('h1').length;
            if (heads !== 1) faults.push(`${heads} h1`);
            const title = document.title.trim();
            if (!/^\S.+ · (Verjuicer|Ṽéŕĵûîçéŕ ~*)$/.test(title)) faults.push(`title "${title}"`);
            return faults;
            JS,
        );

        return array_values(array_filter(\is_array($found) ? $found : [], \is_string(...)));
    }

    /** @return list<string> what reaches beyond a screen of this width, if the page is wider */
    protected function tooWide(int $width): array
    {
        $this->screen($width, 844, true);
        $found = $this->browser->executeScript(
            <<<'JS'
            const width = document.documentElement.clientWidth;
            if (document.documentElement.scrollWidth <= width) return [];
            const isCut = (one) => {
                for (let over = one.parentElement; over; over = over.parentElement) {
                    if (getComputedStyle(over).overflowX !== 'visible') return true;
                }
                return false;
            };
            return [...document.querySelectorAll('body *')]
                .filter((one) => one.getBoundingClientRect().right > width + 1 && !isCut(one))
                .slice(0, 3)
                .map((one) => `${width}: ${one.tagName} ${one.getAttribute('class') ?? ''}`);
            JS,
        );

        return array_values(array_filter(\is_array($found) ? $found : [], \is_string(...)));
    }

    /** @return array<string, list<string>> faults of each page in another language, on a phone and a tablet */
    protected function faultsInLanguage(string $language): array
    {
        $wrong = [];
        foreach ($this->addresses() as $path) {
            if (!\in_array($this->answered($path)[0], [200, 422], true)) {
                continue;
            }
            $this->screen(390, 844, true);
            $this->open($path);
            $spoken = $this->browser->executeScript('return document.documentElement.lang');
            $wrong[$path] = [
                ...$spoken === $language ? [] : ["is not in $language"],
                ...$this->faults(),
                ...$this->tooWide(390),
                ...$this->tooWide(1280),
            ];
        }
        self::assertGreaterThan(80, \count($wrong), implode(' ', array_keys($wrong)));

        return array_filter($wrong);
    }
}
