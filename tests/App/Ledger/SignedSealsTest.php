<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Ledger;

use Verjuicer\App\Ledger\Chain\SealLog;
use Verjuicer\App\Ledger\Chain\SignedSeal;
use Verjuicer\App\Ledger\Chain\SiteKeys;
use Verjuicer\App\Site\Site\Site;
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
        self::assertTrue(SiteKeys::holds($public, 'what was recorded', $signed));
        foreach (
            [
                [$public, 'something else', $signed],
                [strrev($public), 'what was recorded', $signed],
                [$public, 'what was recorded', strrev($signed)],
                [$public, 'what was recorded', ''],
                ['', 'what was recorded', $signed],
                ['no key', 'what was recorded', $signed],
            ] as $forged
        ) {
            self::assertFalse(SiteKeys::holds(...$forged));
        }
    }

    public function testASealIsAddedOnceAMinuteAndOnlyWhereSomethingWasRecorded(): void
    {
        $log = $this->service(SealLog::class);
        $log->note($this->site);
        $log->note($this->site);
        self::assertCount(1, $log->all($this->site));
        $this->keep('7 171.1');
        $log->note($this->site);
        self::assertCount(1, $log->all($this->site), 'within the minute');
        self::mockTime('+61 seconds');
        $log->note($this->site);
        self::assertCount(2, $log->all($this->site));
        self::mockTime('+5 minutes');
        $log->note($this->site);
        self::assertCount(2, $log->all($this->site), 'nothing more was recorded');
        self::assertNull($log->firstBroken($this->site));
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
            self::assertNotNull($log->firstBroken($this->site), $what);
        }
        file_put_contents($path, "no seal\n$line\n");
        self::assertNull($log->firstBroken($this->site));
    }
}
