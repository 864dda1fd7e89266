<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use Symfony\Component\Console\Tester\CommandTester;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\Yaml\Yaml;
use Verjuicer\App\EntryPoint\Console\RebuildCommand;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Wording\AssessmentJson;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Reader;
use Verjuicer\Core\Ruleset\RuleSetLibrary;
use Verjuicer\Core\Ruleset\SlipReason;
use Verjuicer\Tests\App\KitchenTestCase;
use Verjuicer\Tests\Kitchen\TestKitchen;

/** Pages say what the record shows, to whom they should. */
final class ReadingPagesTest extends KitchenTestCase
{
    private const SHOWN = [
        3 => 'running',
        5 => 'running',
        7 => 'running',
        9 => 'running',
        12 => 'running',
        15 => 'not_shown',
        16 => 'running',
        18 => 'broken',
        21 => 'running',
        24 => 'not_shown',
        27 => 'running',
        28 => 'running',
        261 => 'running',
        262 => 'running',
    ];

    public function testTheBoardShowsEveryOpenBatchAndWhatIsDue(): void
    {
        $this->logIn();
        $page = $this->client->request('GET', '/');
        self::assertSame(
            array_map(strval(...), array_keys(self::SHOWN)),
            $page->filter('li .tag')->each(static fn (Crawler $tag): string => $tag->text()),
        );
        $dues = $page->filter('[data-due]')->each(static fn (Crawler $due): string => $due->text());
        self::assertStringContainsString('Tag 18', $dues[0], 'a breach comes first');
        self::assertStringContainsString('Tag 15', $dues[1], 'then what is not shown and nobody has settled');
        self::assertStringContainsString('Tag 24', $dues[2]);
        self::assertSelectorTextContains('section ul a[href*="/batches/"]:last-child', '');
        self::assertStringContainsString('Pork ribs', $page->filter('main')->text(), 'what has ended is still at hand');
        $this->client->request('GET', '/board/live');
        self::assertSelectorNotExists('header');
    }

    public function testPageExportAndCommandAgree(): void
    {
        foreach (self::SHOWN as $tag => $verdict) {
            $path = $this->path($tag);
            $page = $this->client->request('GET', $path);
            $onScreen = $page
                ->filter('[data-finding]')
                ->each(
                    static fn (Crawler $finding): string => $finding->closest('[data-rule]')?->attr('data-rule')
                        .' '
                        .$finding->closest('[data-rule]')?->attr('data-verdict')
                        .' '
                        .$finding->text(),
                );
            $this->client->request('GET', $path.'/record.json');
            $record = $this->service(Reader::class)->read((string) $this->client->getResponse()->getContent());
            $this->client->request('GET', $path.'/assessment.json');
            $answer = (string) $this->client->getResponse()->getContent();
            $served = json_decode($answer, true);
            self::assertIsArray($served);
            self::assertIsString($served['as_of']);
            $assessment = $this->service(Assessor::class)->assess(
                $record,
                $this->service(RuleSetLibrary::class)->get($record->rules),
                Instant::parse($served['as_of']),
            );
            $judged = $this->service(AssessmentJson::class)->of($assessment);
            self::assertSame($verdict, $judged['verdict'], "tag $tag");
            self::assertJsonStringEqualsJsonString($answer, (string) json_encode($judged));
            self::assertIsArray($judged['findings']);
            $told = array_map(static function (mixed $finding): string {
                self::assertIsArray($finding);

                return $finding['rule'].' '.($finding['verdict'] ?? 'caution').' '.$finding['message'];
            }, $judged['findings']);
            self::assertEqualsCanonicalizing($told, $onScreen, "tag $tag");
        }
    }

    public function testALaneIsMadeAnewOnceTimeAloneMayHaveChangedIt(): void
    {
        $site = $this->logIn()->site;
        $verdictOf12 = function () use ($site): Verdict {
            foreach ($this->service(Lanes::class)->open($site)->lanes as $lane) {
                if ($lane->tag === 12) {
                    return $lane->verdict;
                }
            }
            self::fail('tag 12 is not on the board');
        };
        self::assertSame(Verdict::Running, $verdictOf12());
        self::mockTime('+1 hour');
        self::assertSame(Verdict::NotShown, $verdictOf12());
    }

    public function testTheBoardIsRebuiltFromTheRecords(): void
    {
        $this->logIn();
        $before = $this->connection()->fetchAllKeyValue('SELECT batch_id, verdict FROM board_lane ORDER BY 1');
        $this->connection()->executeStatement('DELETE FROM board_lane');
        $tester = new CommandTester($this->service(RebuildCommand::class));
        $tester->execute([]);
        self::assertStringContainsString('16 batches', $tester->getDisplay());
        self::assertSame(
            $before,
            $this->connection()->fetchAllKeyValue('SELECT batch_id, verdict FROM board_lane ORDER BY 1'),
        );
    }

    public function testAnInspectorReadsAndRecordsNothing(): void
    {
        $path = $this->path(12);
        $this->logIn('wynn');
        $page = $this->client->request('GET', $path);
        self::assertResponseIsSuccessful();
        self::assertCount(0, $page->filter('main form'));
        foreach (['/log', $path.'/step', '/batches/new'] as $target) {
            $this->client->request('POST', $target);
            self::assertResponseStatusCodeSame(403, $target);
        }
    }

    public function testNobodyReadsWithoutLoggingIn(): void
    {
        foreach (['/', '/log', '/batches/new', '/board/live'] as $path) {
            $this->client->request('GET', $path);
            self::assertResponseRedirects('http://localhost/login');
        }
    }

    public function testWhatIsSentAfterTheSessionEndedComesBackAfterTheLogin(): void
    {
        $this->client->request('POST', '/log', ['line' => '7 171 T1', '_token' => 'gone', 'id' => 'x', 'back' => '/']);
        self::assertResponseRedirects('/login');
        $login = $this->client->followRedirect()->selectButton('Log in');
        $this->client->submit($login->form(['_username' => 'mara', '_password' => 'oak-and-patience']));
        $page = $this->client->followRedirect();
        self::assertStringContainsString('What you entered is still here', $page->filter('main')->text());
        $page = $this->client->submit($page->selectButton('Continue')->form());
        self::assertSame('7 171 T1', $page->filter('#line')->attr('value'), 'with a fresh token, to be kept');
        $this->client->request('GET', '/resume');
        self::assertResponseRedirects('/');
    }

    public function testALoginNeverLeadsToThePartOfAPageAScriptAskedFor(): void
    {
        $this->client->request('GET', '/board/live', server: ['HTTP_SEC_FETCH_DEST' => 'empty']);
        $login = $this->client->followRedirect()->selectButton('Log in');
        $this->client->submit($login->form(['_username' => 'mara', '_password' => 'oak-and-patience']));
        self::assertResponseRedirects('/');
    }

    public function testPasswordsAreArgon2idAndWrongOnesAreThrottled(): void
    {
        self::assertStringStartsWith('$argon2id$', $this->words('SELECT password FROM person LIMIT 1'));
        $page = null;
        for ($try = 0; $try < 6; ++$try) {
            $form = $this->client
                ->request('GET', '/login')
                ->filter('main form')
                ->form(['_username' => 'nobody', '_password' => 'wrong']);
            $this->client->submit($form);
            $page = $this->client->followRedirect();
        }
        self::assertStringContainsString('Too many tries', $page?->filter('[role=alert]')->text() ?? '');
    }

    public function testPagesAllowOnlyWhatShipsWithThem(): void
    {
        $this->client->request('GET', '/login');
        $policy = (string) $this->client->getResponse()->headers->get('Content-Security-Policy');
        self::assertStringNotContainsString('unsafe', $policy);
        self::assertStringContainsString("default-src 'none'", $policy);
        self::assertStringContainsString("style-src 'self'", $policy);
        $content = (string) $this->client->getResponse()->getContent();
        self::assertDoesNotMatchRegularExpression(
            '/ style=|<script(?! type="(module" src="|application\/json"))|https?:\/\/(?!localhost|www\.w3\.org)/',
            $content,
        );
    }

    public function testEveryWordIsThere(): void
    {
        $messages = self::flat(Yaml::parseFile(__DIR__.'/../../../translations/messages+intl-icu.en.yaml'));
        $findings = self::flat(Yaml::parseFile(__DIR__.'/../../../translations/findings+intl-icu.en.yaml'));
        $wanted = [];
        foreach (Verdict::cases() as $verdict) {
            $wanted[] = 'verdict.'.$verdict->value;
        }
        foreach (SlipReason::cases() as $doubt) {
            $wanted[] = 'entry.sure.'.$doubt->value;
        }
        $core = '';
        $files = glob(__DIR__.'/../../../core/Assess/{Check,Evidence}/*.php', \GLOB_BRACE);
        self::assertIsArray($files);
        foreach ($files as $file) {
            $core .= file_get_contents($file);
        }
        preg_match_all("/new Countdown\\('([a-z_.0-9]+)', CountdownKind::(\\w+)/", $core, $clocks, \PREG_SET_ORDER);
        foreach ($clocks as [, $rule, $kind]) {
            $wanted[] = 'due.'.strtolower($kind).'.'.$rule;
        }
        self::assertGreaterThan(8, \count($clocks));
        preg_match_all(
            "/'((?:house|thermometer|receiving|cook|hot_hold|cold_hold|cool|"
."rest|reheat|thaw|time_control)\\.[a-z_]+)'/",
            $core,
            $keys,
        );
        $known = array_map(
            static fn (string $key): string => (string) preg_replace('/^option\./', '', $key),
            array_keys($findings),
        );
        foreach (array_unique($keys[1]) as $key) {
            $isPrefix = str_ends_with($key, '_');
            self::assertNotSame(
                [],
                array_filter(
                    [...$known, ...array_keys($messages)],
                    static fn (string $one): bool => $isPrefix
                        ? str_starts_with($one, $key)
                        : $one === $key || $one === 'rule.'.$key,
                ),
                $key,
            );
        }
        self::assertSame([], array_diff($wanted, array_keys($messages)));
    }

    public function testTheRecordOfRowsIsTheRecordOfTheFile(): void
    {
        $batch = $this->batch(16);
        $record = $this->service(StoredRecords::class)->of($batch);
        self::assertSame(['T2'], array_map(static fn ($one): string => $one->id, $record->thermometers));
        self::assertCount(
            4,
            $this->service(Assessor::class)->assess(
                $record,
                $this->service(RuleSetLibrary::class)->get($record->rules),
                Instant::parse(TestKitchen::MOMENT),
            )->suspectReadings,
        );
    }

    /** @return array<string, mixed> */
    private static function flat(mixed $tree, string $prefix = ''): array
    {
        $flat = [];
        self::assertIsArray($tree);
        foreach ($tree as $name => $value) {
            $flat += \is_array($value) ? self::flat($value, $prefix.$name.'.') : [$prefix.$name => $value];
        }

        return $flat;
    }
}
