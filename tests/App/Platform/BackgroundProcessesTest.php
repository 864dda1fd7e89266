<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Platform;

use Verjuicer\App\Platform\Machine\BackgroundProcesses;
use Verjuicer\Tests\App\KitchenTestCase;

/** A watch that stops, hangs or begins again and again is seen; another instance takes over. */
final class BackgroundProcessesTest extends KitchenTestCase
{
    private const WATCH = BackgroundProcesses::WATCH;

    public function testOneLeadsAndAnotherTakesOverWhereItHangs(): void
    {
        $one = new BackgroundProcesses($this->connection());
        $other = new BackgroundProcesses($this->connection());
        $one->started(self::WATCH);
        self::assertTrue($one->beat(self::WATCH));
        self::assertTrue($one->beat(self::WATCH));
        self::assertFalse($other->beat(self::WATCH));
        $this->goBy(16);
        self::assertTrue($other->beat(self::WATCH));
        self::assertFalse($one->beat(self::WATCH), 'what hung and wakes up leads no more');
        $other->ended(self::WATCH);
        $this->goBy(16);
        self::assertTrue($one->beat(self::WATCH));
    }

    public function testAWatchThatStoppedTurnsReadinessAndEveryBoardRed(): void
    {
        $this->logIn('ike');
        $processes = $this->service(BackgroundProcesses::class);
        self::assertSame([], $processes->health(), 'where none ever ran none is missed');
        $processes->started(self::WATCH);
        $processes->beat(self::WATCH);
        $this->client->request('GET', '/readyz');
        self::assertResponseIsSuccessful();
        $this->client->request('GET', '/');
        self::assertSelectorNotExists('[data-watch-late]');
        $this->goBy(31);
        $this->client->request('GET', '/readyz');
        self::assertResponseStatusCodeSame(503);
        foreach (['/', '/wall'] as $board) {
            $this->client->request('GET', $board);
            self::assertSelectorTextContains('[data-watch-late]', 'Alarms have not been checked');
        }
        self::assertNull($processes->upFor(self::WATCH));
    }

    public function testAProcessThatBeginsAgainAndAgainIsNotReady(): void
    {
        $processes = $this->service(BackgroundProcesses::class);
        for ($start = 1; $start <= 4; ++$start) {
            self::assertFalse($processes->isLooping(BackgroundProcesses::LISTENER));
            $processes->started(BackgroundProcesses::LISTENER);
            $processes->beat(BackgroundProcesses::LISTENER);
        }
        self::assertTrue($processes->isLooping(BackgroundProcesses::LISTENER));
        self::assertSame([BackgroundProcesses::LISTENER => false], $processes->health());
    }

    private function goBy(int $seconds): void
    {
        $this->connection()->executeStatement(
            'UPDATE background_process SET at = at - make_interval(secs => ?)',
            [$seconds],
        );
    }
}
