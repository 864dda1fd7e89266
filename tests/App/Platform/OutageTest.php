<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Platform;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Event\ExceptionEvent;
use Symfony\Component\HttpKernel\HttpKernelInterface;
use Verjuicer\App\Platform\Problem\Outage;
use Verjuicer\Tests\App\KitchenTestCase;

/** Where the database does not answer nothing that was typed is lost, and nobody is logged out. */
final class OutageTest extends KitchenTestCase
{
    public function testWhatWasTypedComesBackToBeSentAgain(): void
    {
        $asked = ['line' => '7 "203" <b>', 'id' => 'x', 'pieces' => ['1', '3'], '_password_again' => 'secret words'];
        $page = $this->answer(new \PDOException('SQLSTATE[08006] [7] connection failed'), 'POST', $asked);
        self::assertNotNull($page);
        self::assertStringContainsString('Not saved', $page);
        self::assertStringContainsString('7 &quot;203&quot; &lt;b&gt;', $page);
        self::assertStringContainsString('name="pieces[1]" value="3"', $page);
        self::assertStringNotContainsString('secret words', $page);
        self::assertStringNotContainsString('http-equiv', $page, 'nothing is sent by itself');
    }

    public function testAPageThatIsLookedAtLooksAgain(): void
    {
        $page = $this->answer(new \RuntimeException('', 0, new \PDOException('SQLSTATE[57P03]: starting up')), 'GET');
        self::assertStringContainsString('http-equiv="refresh"', (string) $page);
    }

    #[DataProvider('others')]
    public function testOtherFaultsAreNotExplainedAway(\Throwable $fault): void
    {
        self::assertNull($this->answer($fault, 'GET'));
    }

    /** @return iterable<string, array{\Throwable}> */
    public static function others(): iterable
    {
        yield 'a row that is there already' => [new \PDOException('SQLSTATE[23505]: Unique violation')];
        yield 'a wrong query' => [new \PDOException('SQLSTATE[42601]: Syntax error')];
        yield 'behind a wall' => [new \PDOException('SQLSTATE[42501]: row-level security')];
        yield 'no matter of the database' => [new \RuntimeException('Connection refused')];
    }

    public function testALockHeldByAnotherIsToldKindly(): void
    {
        $page = $this->answer(new \PDOException('SQLSTATE[55P03]: Lock not available'), 'POST', ['line' => '7 1']);
        self::assertStringContainsString('Try again', (string) $page);
    }

    /** @param array<string, mixed> $asked */
    private function answer(\Throwable $fault, string $method, array $asked = []): ?string
    {
        self::assertNotNull(self::$kernel);
        $event = new ExceptionEvent(
            self::$kernel,
            Request::create('/log', $method, $asked),
            HttpKernelInterface::MAIN_REQUEST,
            $fault,
        );
        $this->service(Outage::class)->answer($event);
        $response = $event->getResponse();
        if ($response !== null) {
            self::assertSame([503, '3'], [$response->getStatusCode(), $response->headers->get('Retry-After')]);
        }

        return $response === null ? null : (string) $response->getContent();
    }
}
