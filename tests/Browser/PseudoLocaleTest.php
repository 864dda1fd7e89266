<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Browser;

use Symfony\Component\Process\Process;

/** Every page with texts that are 40 % longer and accented, as those of a language still to come may be. */
final class PseudoLocaleTest extends PageWalkCase
{
    protected const APP_ENV = 'pseudo';

    public static function setUpBeforeClass(): void
    {
        $clear = [\PHP_BINARY, 'bin/console', 'cache:clear', '--quiet'];
        (new Process($clear, self::ROOT, ['APP_ENV' => self::APP_ENV], null, 120))->mustRun();
        parent::setUpBeforeClass();
    }

    public function testLongerTextsFitTheScreen(): void
    {
        $this->logIn('dell');
        self::assertStringContainsString('Ɓöåŕð', $this->find('h1')->getText());
        $this->prepare();
        self::assertSame([], $this->faultsInLanguage('en'));
    }
}
