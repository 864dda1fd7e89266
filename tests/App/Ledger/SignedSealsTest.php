<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Ledger;

use Verjuicer\App\Ledger\Chain\Seal;
use Verjuicer\App\Ledger\Chain\SealLog;
use Verjuicer\App\Ledger\Chain\SignedSeal;
use Verjuicer\App\Ledger\Chain\SiteChain;
use Verjuicer\App\Ledger\Chain\SiteKeys;
use Verjuicer\App\Reporting\Proof\Verification;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Proof\Statement;
use Verjuicer\Tests\App\KitchenTestCase;

/** Seals outside the database: signed with a key that only the service reads, at most one a minute, hard to forge. */
final class SignedSealsTest extends KitchenTestCase
{
    private Site $site;

    protected function setUp(): void
    {
        parent::setUp();
        $this->site = $this->logIn()->site;
    }

    public function testTheKeyIsMadeOnceAndReadByNobodyElse(): void
    {
        $keys = $this->service(SiteKeys::class);
        $public = $keys->publicKey($this->site);
        self::assertSame($public, $keys->publicKey($this->site));
        self::assertSame(0o600, fileperms($keys->path($this->site, '.key')) & 0o777);
        $signed = $keys->sign($this->site, 'what was recorded');
        self::assertTrue(Statement::isSignedBy($public, 'what was recorded', $signed));
        foreach (
            [
                [$public, 'Change the kind of step', $signed],
                [strrev($public), 'what was recorded', $signed],
                [$public, 'what was recorded', strrev($signed)],
                [$public, 'what was recorded', ''],
                ['', 'what was recorded', $signed],
                ['no key', 'what was recorded', $signed],
            ] as $forged
        ) {
            self::assertFalse(Statement::isSignedBy(...$forged));
        }
    }

    public function testTheNewestIsSealedAtOnceAndOneStaysEveryTenMinutes(): void
    {
        $log = $this->service(SealLog::class);
        $stay = fn (): array => SealLog::read($this->service(SiteKeys::class)->path($this->site, '.seals'));
        $log->note($this->site);
        $log->note($this->site);
        self::assertCount(1, $log->all($this->site));
        $this->keep('7 171.1');
        $length = $this->service(SiteChain::class)->length($this->site);
        self::assertSame($length, $log->all($this->site)[0]->position, 'as soon as it was answered');
        self::assertCount(1, $stay(), 'within ten minutes');
        self::mockTime('+601 seconds');
        $this->keep('7 171.2');
        self::assertCount(2, $stay());
        self::mockTime('+50 minutes');
        $log->note($this->site);
        self::assertCount(2, $stay(), 'nothing more was recorded');
        self::assertNull($this->broken($log));
    }

    public function testWhatWasAlteredSinceItWasSealedIsFoundEvenOnceTheChainWentOn(): void
    {
        $log = $this->service(SealLog::class);
        $this->keep('7 171.1');
        self::assertNull($this->broken($log));
        $this->asOwner();
        $this->connection()->executeStatement('SET session_replication_role = replica');
        $this->connection()->executeStatement(
            "UPDATE chain_link SET hash = sha256('x') WHERE position = (SELECT max(position) FROM chain_link)",
        );
        $this->connection()->executeStatement('SET session_replication_role = DEFAULT');
        $this->logIn();
        $this->keep('7 171.2');
        self::assertNotNull($this->broken($log));
    }

    public function testASealThatSaysOtherwiseOrThatNobodySignedIsFound(): void
    {
        $log = $this->service(SealLog::class);
        $log->note($this->site);
        $path = $this->service(SiteKeys::class)->path($this->site, '.seals');
        $line = trim((string) file_get_contents($path));
        self::assertNotNull(SignedSeal::read($line));
        [$site, $position, $digest, $at, $signature] = explode(' ', $line);
        foreach (
            [
                'another digest' => [$site, $position, strrev($digest), $at, $signature],
                'another moment' => [$site, $position, $digest, (string) ((int) $at + 1), $signature],
                'a signature of nobody' => [$site, $position, $digest, $at, strrev($signature)],
                'a place that is not there' => [$site, (string) ((int) $position + 1000), $digest, $at, $signature],
            ] as $what => $parts
        ) {
            file_put_contents($path, implode(' ', $parts)."\n");
            self::assertNotNull($this->broken($log), $what);
        }
        file_put_contents($path, "no seal\n$line\n");
        self::assertNull($this->broken($log));
    }

    public function testACopyOfAnEarlierMomentHasNothingThatWasSealedSince(): void
    {
        $log = $this->service(SealLog::class);
        $log->note($this->site);
        $chain = $this->service(SiteChain::class);
        $later = $log->sign($this->site, new Seal($chain->length($this->site) + 3, str_repeat('a', 64)));
        $path = $this->service(SiteKeys::class)->path($this->site, '.head');
        file_put_contents($path, $later->line()."\n");
        $verification = $this->service(Verification::class);
        self::assertCount(1, $verification->of($this->site, false)->breaks, 'as a chain that was cut');
        self::assertSame([], $verification->of($this->site, false, isCopy: true)->breaks);
        $other = $log->sign($this->site, new Seal($chain->length($this->site) - 1, str_repeat('a', 64)));
        file_put_contents($path, $other->line()."\n");
        self::assertCount(1, $verification->of($this->site, false, isCopy: true)->breaks, 'but what was altered');
    }

    private function broken(SealLog $log): ?SignedSeal
    {
        return $log->firstBroken($this->site, array_reverse($log->all($this->site)));
    }
}
