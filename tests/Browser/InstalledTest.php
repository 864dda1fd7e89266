<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;
use Symfony\Component\Process\Process;
use Verjuicer\App\Platform\Mqtt\MqttConnection;
use Verjuicer\App\Platform\Mqtt\MqttLost;

/**
 * A kitchen that `bin/install` made, into a folder and ports of its own: over TLS, set up by keyboard alone with three
 * people, a tablet and a second site, and restored from its backup.
 */
final class InstalledTest extends BrowserTestCase
{
    private const MOST_TABS = 90;

    private static string $into = '';
    private static int $tls = 0;
    private static int $mqtt = 0;

    protected static function served(string $folder, int $port): array
    {
        self::$into = $folder;
        self::$tls = $port;
        $http = self::freePort();
        $said = self::told(
            'bin/install', '--into', $folder, '--name', 'kitchen.test', '--listen', '127.0.0.1',
            '--port', (string) $http, '--tls-port', (string) $port, '--pg-port', (string) self::freePort(),
            '--mqtt-port', (string) (self::$mqtt = self::freePort()), '--mqtt-local-port', (string) self::freePort(),
        );
        self::assertStringContainsString("https://kitchen.test:$port", $said);

        return [new Process([$folder.'/start'], self::ROOT, self::outside(), null, 600), "https://127.0.0.1:$port"];
    }

    public function testIsServedOverTlsAndASecondRunFindsNothingToDo(): void
    {
        $again = self::told('bin/install', '--into', self::$into);
        self::assertStringContainsString('kept', $again);
        self::assertSame(1, substr_count($again, '  made '), $again); // the cache
        $checked = self::told('bin/install', '--into', self::$into, '--check');
        self::assertStringContainsString('Nothing differs.', $checked);
        $address = 'https://kitchen.test:'.self::$tls.'/login';
        $answer = self::told(
            'curl', '-si', '--cacert', self::$into.'/etc/tls/ca.crt',
            '--resolve', 'kitchen.test:'.self::$tls.':127.0.0.1', $address,
        );
        self::assertStringStartsWith('HTTP/2 200', $answer);
        $authority = self::told('openssl', 'x509', '-in', self::$into.'/etc/tls/ca.crt', '-noout', '-text');
        self::assertMatchesRegularExpression(
            '/Name Constraints: critical\s+Permitted:\s+DNS:kitchen\.test\s/',
            $authority,
            'it vouches for no other site',
        );
        self::assertStringNotContainsString('IP:0.0.0.0', $authority);
        $keys = (new Process(['grep', '-rlE', 'BEGIN (EC )?PRIVATE KEY', self::$into.'/etc']))->mustRun()->getOutput();
        self::assertSame(self::$into.'/etc/tls/server.key', trim($keys), 'the key of the authority is not kept here');
        self::assertStringContainsString('strict-transport-security: max-age=31536000', $answer);
        self::assertMatchesRegularExpression('/set-cookie: verjuicer=.*secure; httponly/', $answer);

        file_put_contents(self::$into.'/lib/run/php-fpm.conf', "; somebody was here\n", \FILE_APPEND);
        $check = new Process(['bin/install', '--into', self::$into, '--check'], self::ROOT, self::outside());
        self::assertSame(1, $check->run());
        self::assertMatchesRegularExpression('/differs .*php-fpm\.conf/', $check->getOutput());
        $again = self::told('bin/install', '--into', self::$into);
        self::assertMatchesRegularExpression('/made .*php-fpm\.conf/', $again);
    }

    public function testSensorsPublishOverTlsAndNobodyUnknownIsLetIn(): void
    {
        $default = stream_context_get_options(stream_context_get_default());
        stream_context_set_default(['ssl' => [
            'cafile' => self::$into.'/etc/tls/ca.crt',
            'peer_name' => 'kitchen.test',
        ]]);
        try {
            $this->expectException(MqttLost::class);
            $this->expectExceptionMessage('the broker refuses it');
            new MqttConnection('tls://127.0.0.1:'.self::$mqtt, 'stranger', 'stranger', 'password');
        } finally {
            stream_context_set_default($default + ['ssl' => ['cafile' => null, 'peer_name' => null]]);
        }
    }

    public function testTheListenerRuns(): void
    {
        $ready = self::told('curl', '-sk', 'https://127.0.0.1:'.self::$tls.'/readyz');
        self::assertStringContainsString('"listen":true', $ready);
        $passwords = self::$into.'/lib/mqtt/passwords';
        self::assertStringStartsWith('verjuicer:$7$', (string) file_get_contents($passwords));
        self::assertSame('0600', substr(\sprintf('%o', (int) fileperms($passwords)), -4));
        self::assertFileExists(self::$into.'/systemd/verjuicer-broker.service');
        self::assertFileExists(self::$into.'/systemd/verjuicer-listen.service');
    }

    public function testIsSetUpByKeyboardAloneAndRestoredOnAnotherCluster(): void
    {
        $begun = time();
        $this->screen(1280, 800, false);
        $this->open('/setup');
        $this->typed([
            'code' => trim(self::told(self::$into.'/verjuicer', 'verjuicer:setup-code')),
            'name' => 'Bend of the River',
            'units' => 'US customary',
            'manager_name' => 'Orla Finch',
            'manager_initials' => 'of',
            'manager_login' => 'orla',
            'password' => 'three slow rivers meet',
        ]);
        $this->seeIn('main', 'First tasks');
        self::assertMatchesRegularExpression('/\d+:\d\d [ap]m/', $this->find('header')->getText());
        foreach ([['Ned Wold', 'nw', 'ned'], ['Ada Birch', 'ab', 'ada']] as [$name, $initials, $login]) {
            $this->open('/people');
            $this->typed(['name' => $name, 'initials' => $initials, 'login' => $login]);
            $this->seeIn('main', 'https://kitchen.test:'.self::$tls.'/welcome/');
        }
        $this->open('/devices');
        $this->typed(['name' => 'Pit tablet']);
        $this->seeIn('main', 'this tablet');
        $this->open('/sites/new');
        $this->typed(['name' => 'Mill Bend', 'units' => 'Metric']);
        $this->seeIn('header', 'Mill Bend');
        self::assertMatchesRegularExpression('/\b\d\d:\d\d\b(?! [ap]m)/', $this->find('header')->getText());
        self::assertLessThan(300, time() - $begun);

        $drill = self::told('bin/restore-drill');
        self::assertMatchesRegularExpression('/\d+ links of 2 sites are there/', $drill);
        $kept = self::told('curl', '-sk', 'https://127.0.0.1:'.self::$tls.'/keptz');
        self::assertStringContainsString('"kept":true', $kept);
    }

    public function testNothingIsPutBackUnderADatabaseThatIsStillServed(): void
    {
        $environment = ['VERJUICER_ETC' => self::$into.'/etc'] + self::outside();
        $back = new Process(['bin/upgrade', '--back', '2026-01-01 00:00:00+00'], self::ROOT, $environment);
        self::assertSame(1, $back->run());
        self::assertStringContainsString('Nothing was changed', $back->getErrorOutput());
        self::assertSame([], glob(self::$into.'/lib/pg-*'));
        $this->open('/login');
        $this->find('[name=_username]');
    }

    public function testAPortThatIsTakenIsSaidBeforeAnythingIsMade(): void
    {
        $folder = self::$into.'-second';
        $second = ['bin/install', '--into', $folder, '--tls-port', (string) self::$tls];
        $ports = ['--port', (string) self::freePort(), '--pg-port', (string) self::freePort()];
        array_push($ports, '--mqtt-port', (string) self::freePort(), '--mqtt-local-port', (string) self::freePort());
        $process = new Process([...$second, ...$ports], self::ROOT, self::outside());
        self::assertSame(1, $process->run());
        $said = 'Something listens already at port '.self::$tls;
        self::assertStringContainsString($said, $process->getErrorOutput());
        self::assertDirectoryDoesNotExist($folder);
    }

    /** Of a further one, which is not served. */
    public function testIsRemovedOnceThatIsSaidAndWhatWasRecordedStays(): void
    {
        $folder = self::$into.'-third';
        try {
            self::told(
                'bin/install', '--into', $folder, '--name', 'kitchen.test', '--listen', '127.0.0.1',
                '--port', (string) self::freePort(), '--tls-port', (string) self::freePort(),
                '--pg-port', (string) self::freePort(), '--mqtt-port', (string) self::freePort(),
                '--mqtt-local-port', (string) self::freePort(),
            );
            $remove = static function (string $answer) use ($folder): Process {
                $process = new Process(['bin/install', '--into', $folder, '--remove'], self::ROOT, self::outside());
                $process->setInput($answer."\n")->run();

                return $process;
            };
            self::assertSame(1, $remove('y')->getExitCode());
            self::assertFileExists($folder.'/start', 'nothing was removed');
            $removed = $remove('remove');
            self::assertSame(0, $removed->getExitCode(), $removed->getErrorOutput());
            foreach (['start', 'verjuicer', 'systemd/verjuicer-web.service', 'lib/run/nginx.conf'] as $gone) {
                self::assertFileDoesNotExist("$folder/$gone");
            }
            foreach (['lib/pg/PG_VERSION', 'etc/verjuicer.env', 'etc/owner.env', 'lib/backups'] as $stays) {
                self::assertFileExists("$folder/$stays");
            }
            self::assertDirectoryExists($folder.'/lib/keys');
        } finally {
            (new Process(['rm', '-rf', $folder]))->run();
        }
    }

    /**
     * From field to field by the tab key, then to the first button after them.
     *
     * @param array<string, string> $fields by name
     */
    private function typed(array $fields): void
    {
        foreach ($fields as $name => $words) {
            $this->tabTo("[name=$name]");
            $active = $this->browser->switchTo()->activeElement();
            if ($active->getTagName() !== 'select') {
                $active->sendKeys([WebDriverKeys::CONTROL, 'a']);
            }
            $active->sendKeys($words);
        }
        $this->tabTo('main form button:not([type=button])');
        $this->browser->switchTo()->activeElement()->sendKeys(WebDriverKeys::ENTER);
    }

    private function tabTo(string $selector): void
    {
        $this->find($selector);
        for ($tab = 0; $tab < self::MOST_TABS; ++$tab) {
            $isThere = $this->browser->executeScript(
                'return document.activeElement.matches(arguments[0])',
                [$selector],
            );
            if ($isThere === true) {
                return;
            }
            $this->browser->switchTo()->activeElement()->sendKeys(WebDriverKeys::TAB);
        }
        self::fail("$selector is not reached by the tab key");
    }

    private static function told(string ...$command): string
    {
        $process = new Process(array_values($command), self::ROOT, self::outside(), null, 300);
        $process->mustRun();

        return $process->getOutput();
    }

    /** @return array<string, string|false> nothing of the database of the other tests */
    private static function outside(): array
    {
        $names = ['DATABASE_URL', 'DATABASE_OWNER_URL', 'DEFAULT_URI', 'MESSENGER_DSN', 'SYMFONY_DOTENV_VARS'];

        return ['VERJUICER_ETC' => self::$into.'/etc'] + array_fill_keys(
            [...$names, 'APP_ENV', 'APP_SECRET', 'APP_DEBUG'],
            false,
        );
    }
}
