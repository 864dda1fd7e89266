<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Browser;

use Symfony\Component\Process\Process;

/** Every page with texts that are 40 % longer and accented, as those of a language still to come may be. */
final class PseudoLocaleTest extends PageWalkCase
{
    protected static function served(string $folder, int $port): array
    {
        [$server, $address] = parent::served($folder, $port);
        $environment = ['APP_ENV' => 'pseudo'];
        (new Process([\PHP_BINARY, 'bin/console', 'cache:clear', '--quiet'], self::ROOT, $environment, null, 120))
            ->mustRun();

        return [$server->setEnv($environment + $server->getEnv()), $address];
    }

    public function testLongerTextsFitTheScreen(): void
    {
        $this->logIn('dell');
        self::assertStringContainsString('Ɓöåŕð', $this->find('h1')->getText());
        $this->prepare();
        self::assertSame([], $this->faultsInLanguage('en'));
    }
}
