<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Browser;

use Facebook\WebDriver\Chrome\ChromeDevToolsDriver;
use Facebook\WebDriver\Chrome\ChromeOptions;
use Facebook\WebDriver\Exception\TimeoutException;
use Facebook\WebDriver\Exception\WebDriverException;
use Facebook\WebDriver\Remote\DesiredCapabilities;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverElement;
use Facebook\WebDriver\WebDriverExpectedCondition;
use Facebook\WebDriver\WebDriverSelect;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\Process\Process;

/** The real interface in Chromium, served as it is in a kitchen, on a database of its own with the demo in it. */
abstract class BrowserTestCase extends TestCase
{
    protected const ROOT = __DIR__.'/../..';
    protected const APP_ENV = 'prod';

    /** How long anything is waited for: the machine may be doing something else. */
    private const PATIENCE_S = 30;

    protected RemoteWebDriver $browser;

    private static ?Process $server = null;
    private static ?Process $driver = null;
    private static string $address = '';
    private static string $folder = '';
    private static int $driverPort = 0;
    private string $profile = '';

    public static function setUpBeforeClass(): void
    {
        $port = self::freePort();
        self::$driverPort = self::freePort();
        self::$folder = sys_get_temp_dir().'/verjuicer-'.bin2hex(random_bytes(6));
        [self::$server, self::$address] = static::served(self::$folder, $port);
        self::$server->disableOutput();
        self::$server->start();
        self::$driver = new Process(['chromedriver', '--port='.self::$driverPort, '--silent'], null, null, null, 600);
        self::$driver->disableOutput();
        self::$driver->start();
        self::await(static fn (): bool => self::isWell(self::$address.'/healthz'));
        self::await(static fn (): bool => self::answers(self::$driverPort));
    }

    /** The network is gone, as far as the browser can tell. */
    protected function cutOff(): void
    {
        self::$server?->stop(15);
        self::await(static fn (): bool => !self::isWell(self::$address.'/healthz'));
    }

    /** The network is back. */
    protected function reconnect(): void
    {
        self::$server?->start();
        self::await(static fn (): bool => self::isWell(self::$address.'/healthz'));
    }

    /** @return array{Process, string} what serves at a port, and the address it is reached by */
    protected static function served(string $folder, int $port): array
    {
        $environment = [
            'APP_ENV' => static::APP_ENV,
            'APP_DEBUG' => '0',
            'PORT' => (string) $port,
            'FPM_CHILDREN' => '4',
        ];

        return [
            new Process(['deploy/serve', $folder, '--no-worker'], self::ROOT, $environment, null, 600),
            "http://127.0.0.1:$port",
        ];
    }

    public static function tearDownAfterClass(): void
    {
        self::$driver?->stop(2);
        self::$server?->stop(15);
        (new Filesystem())->remove(self::$folder);
    }

    protected function setUp(): void
    {
        $this->startBrowser([]);
    }

    /** The same browser with its scripts switched off. */
    protected function restartWithoutScript(): void
    {
        $this->browser->quit();
        $this->startBrowser(['profile.managed_default_content_settings.javascript' => 2]);
    }

    /** @param array<string, int> $preferences */
    private function startBrowser(array $preferences): void
    {
        $this->profile = sys_get_temp_dir().'/verjuicer-'.bin2hex(random_bytes(6));
        $options = new ChromeOptions();
        $options->addArguments([
            '--headless=new',
            '--no-sandbox',
            '--disable-gpu',
            '--disable-quic',
            '--no-first-run',
            '--disable-background-networking',
            '--disable-dev-shm-usage',
            '--disable-component-update',
            '--disable-sync',
            '--window-size=1280,800',
            '--user-data-dir='.$this->profile,
        ]);
        if ($preferences !== []) {
            $options->setExperimentalOption('prefs', $preferences);
        }
        $capabilities = DesiredCapabilities::chrome();
        $capabilities->setCapability(ChromeOptions::CAPABILITY, $options);
        $capabilities->setCapability('goog:loggingPrefs', ['browser' => 'ALL']);
        $capabilities->setCapability('acceptInsecureCerts', true);
        $this->browser = RemoteWebDriver::create(
            'http://127.0.0.1:'.self::$driverPort,
            $capabilities,
            60_000,
            120_000,
        );
        $timeouts = $this->browser->manage()->timeouts();
        $timeouts->implicitlyWait(0)->setScriptTimeout(self::PATIENCE_S)->pageLoadTimeout(2 * self::PATIENCE_S);
    }

    protected function tearDown(): void
    {
        // A 4xx answer is logged by the browser as an error, too: only scripts and policies count.
        $log = array_filter(
            $this->browser->manage()->getLog('browser'),
            static fn (mixed $line): bool => \is_array($line)
                && $line['level'] === 'SEVERE'
                && $line['source'] !== 'network',
        );
        $this->browser->quit();
        (new Process(['rm', '-rf', $this->profile]))->run();
        self::assertSame([], array_values($log), 'the browser complained');
    }

    protected function screen(int $width, int $height, bool $isMobile): void
    {
        (new ChromeDevToolsDriver($this->browser))->execute('Emulation.setDeviceMetricsOverride', [
            'width' => $width,
            'height' => $height,
            'deviceScaleFactor' => 1,
            'mobile' => $isMobile,
        ]);
    }

    /** @return list<string> the first column of what a query finds in the database of the tests */
    protected function column(string $sql): array
    {
        $url = parse_url((string) getenv('DATABASE_OWNER_URL'));
        self::assertIsArray($url);
        $database = new \PDO(
            \sprintf(
                'pgsql:host=%s;port=%d;dbname=%s',
                $url['host'] ?? '',
                $url['port'] ?? 0,
                trim($url['path'] ?? '', '/'),
            ),
            $url['user'] ?? null,
            $url['pass'] ?? null,
        );
        $found = $database->query($sql);
        self::assertNotFalse($found);

        return array_map(
            static fn (mixed $value): string => \is_scalar($value) ? (string) $value : '',
            array_values($found->fetchAll(\PDO::FETCH_COLUMN)),
        );
    }

    /** Where it is served, without a path. */
    protected static function address(): string
    {
        return self::$address;
    }

    protected function open(string $path): void
    {
        $this->browser->get(self::$address.$path);
    }

    protected function logIn(string $login = 'mara'): void
    {
        $this->open('/login');
        $this->find('[name=_username]')->sendKeys($login);
        $this->find('[name=_password]')->sendKeys('oak-and-patience')->submit();
        $this->find('#due-next');
    }

    protected function find(string $selector): WebDriverElement
    {
        $element = $this->browser
            ->wait(self::PATIENCE_S, 100)
            ->until(WebDriverExpectedCondition::presenceOfElementLocated(WebDriverBy::cssSelector($selector)));
        self::assertInstanceOf(WebDriverElement::class, $element);

        return $element;
    }

    /**
     * Waits until something holds of the page. An element that is not there yet, or went with what it was on while it
     * was looked at, is no failure: it is looked for again.
     *
     * @param \Closure(): bool $holds
     */
    protected function until(\Closure $holds): void
    {
        $this->browser->wait(self::PATIENCE_S, 50)->until(static function () use ($holds): bool {
            try {
                return $holds();
            } catch (WebDriverException) {
                return false;
            }
        });
        $this->addToAssertionCount(1);
    }

    /** A button, a link or a summary by its words; one behind "More" is looked for there, too. */
    protected function button(string $text): WebDriverElement
    {
        $this->browser->executeScript(
            <<<'JS'
            const all = [...document.querySelectorAll('main :is(button, summary, a)')]
                .filter((one) => one.textContent.trim().startsWith(arguments[0]));
            if (all.length === 0 || all.some((one) => one.checkVisibility())) return;
            const own = all[0].tagName === 'SUMMARY' ? all[0].parentElement : null;
            for (let one = all[0].closest('details'); one; one = one.parentElement.closest('details')) {
                if (one !== own) one.open = true;
            }
            JS,
            [$text],
        );
        $element = $this->browser
            ->wait(self::PATIENCE_S, 100)
            ->until(
                WebDriverExpectedCondition::elementToBeClickable(
                    WebDriverBy::xpath(
                        \sprintf(
                            '//main//*[self::button or self::summary or self::a]'
.'[normalize-space()="%1$s" or normalize-space(span[1])="%1$s"]'
.'[not(ancestor::details[not(@open)]) or self::summary]',
                            $text,
                        ),
                    ),
                ),
            );
        self::assertInstanceOf(WebDriverElement::class, $element);

        return $element;
    }

    protected function seeIn(string $selector, string $text): void
    {
        try {
            $this->until(fn (): bool => str_contains(
                $this->browser->findElement(WebDriverBy::cssSelector($selector))->getText(),
                $text,
            ));
        } catch (TimeoutException) {
            self::fail(
                \sprintf(
                    '"%s" is not in %s of %s, which says: %s',
                    $text,
                    $selector,
                    $this->browser->getCurrentURL(),
                    $this->find('body')->getText(),
                ),
            );
        }
    }

    /**
     * Serious and critical findings of axe-core on the page as it is.
     *
     * @param list<string> $rules these alone, where there are any
     * @param list<string> $of selectors of the parts of the page to look at
     *
     * @return list<string>
     */
    protected function seriousAccessibilityFindings(array $rules = [], array $of = ['html']): array
    {
        // A line under which others scroll half covers one of them at any time: that is no finding.
        $this->browser->executeScript(
            "document.querySelectorAll('.sticky').forEach((line) => line.classList.remove('sticky'))",
        );
        if ($this->browser->executeScript('return typeof axe') !== 'object') {
            $axe = file_get_contents(self::ROOT.'/node_modules/axe-core/axe.min.js');
            $this->browser->executeScript((string) $axe);
        }
        $found = $this->browser->executeAsyncScript(
            <<<'JS'
            const done = arguments[arguments.length - 1];
            const levels = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];
            axe.run(arguments[1], { runOnly: arguments[0].length > 0 ? arguments[0] : levels })
                .then((result) => done(result.violations
                .filter((one) => ['serious', 'critical'].includes(one.impact))
                .map((one) => `${one.id}: ${one.nodes.slice(0, 3).map((node) => node.html).join(' | ')}`)));
            JS,
            [$rules, $of],
        );
        self::assertIsArray($found);

        return array_map(static fn (mixed $one): string => \is_string($one) ? $one : '', array_values($found));
    }

    protected function begin(string $product, string $tag): void
    {
        $this->open('/batches/new');
        (new WebDriverSelect($this->find('[name=lot]')))->selectByValue('no_lot');
        (new WebDriverSelect($this->find('[name=product]')))->selectByVisibleText($product);
        $this->find('[name=tag]')->clear()->sendKeys($tag);
        $this->button('Start batch')->click();
        $this->seeIn('h1', $product);
    }

    /** @param bool $sure whether it is what somebody means, and says why where it is late */
    protected function type(string $line, bool $sure = false): void
    {
        $this->find('#line')
            ->clear()
            ->sendKeys($sure ? $line.' because the card lay at the pit' : $line);
        $this->send($this->button('Save'));
        if ($sure && $this->browser->findElements(WebDriverBy::cssSelector('[role=alertdialog]')) !== []) {
            $this->send($this->button('Yes, save it'));
            $this->find('main [role=status]');
        }
    }

    /**
     * Clicks what sends a form, and waits until the page it was on is gone: what is looked for next is of the answer.
     */
    protected function send(WebDriverElement $button): void
    {
        $this->browser->executeScript('window.isLeft = true');
        $button->click();
        $this->until(fn (): bool => $this->browser->executeScript('return window.isLeft === undefined') === true);
        $this->find('#line, main h1');
    }

    protected function openTag(int $tag): void
    {
        $this->open('/');
        $this->find('#due-next');
        $path = $this->browser->executeScript(
            'return [...document.querySelectorAll("li a")]'
.'.find((link) => link.querySelector(".tag")?.textContent === arguments[0])?.getAttribute("href")',
            [(string) $tag],
        );
        self::assertIsString($path);
        $this->open($path);
    }

    /**
     * @return array{verdict: string, rules_judged: array<string, string>} what the command says of the record of the
     *     page
     */
    protected function ofTheCommand(): array
    {
        $record = $this->fetched('/record.json');
        $process = new Process([\PHP_BINARY, 'bin/console', 'verjuicer:assess', '-'], self::ROOT, null, $record);
        $process->mustRun();

        /** @var array{verdict: string, rules_judged: array<string, string>} */
        return json_decode($process->getOutput(), true, flags: \JSON_THROW_ON_ERROR);
    }

    /** What is at an address under that of the page. */
    protected function fetched(string $under): string
    {
        $text = $this->browser->executeAsyncScript(
            'const done = arguments[arguments.length - 1]; fetch(location.pathname + arguments[0]).then((answer) '
            .'=> answer.text()).then(done)',
            [$under],
        );
        self::assertIsString($text);

        return $text;
    }

    /** @param \Closure(): bool $isThere */
    private static function await(\Closure $isThere): void
    {
        for ($until = time() + self::PATIENCE_S; time() < $until; usleep(100_000)) {
            if ($isThere()) {
                return;
            }
        }
        self::fail('It does not answer.');
    }

    /** An open port is not enough: nginx answers for a php-fpm that is still reading its code in. */
    private static function isWell(string $address): bool
    {
        $context = stream_context_create([
            'http' => ['timeout' => 5],
            'ssl' => ['verify_peer' => false, 'verify_peer_name' => false],
        ]);

        return @file_get_contents($address, false, $context) !== false;
    }

    private static function answers(int $port): bool
    {
        $socket = @fsockopen('127.0.0.1', $port, $code, $message, 0.2);
        if ($socket === false) {
            return false;
        }
        fclose($socket);

        return true;
    }

    protected static function freePort(): int
    {
        $socket = stream_socket_server('tcp://127.0.0.1:0');
        self::assertIsResource($socket);
        $name = (string) stream_socket_get_name($socket, false);
        fclose($socket);

        return (int) substr((string) strrchr($name, ':'), 1);
    }
}
