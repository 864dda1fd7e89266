<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** What came in at the door: cold, frozen, or bought in hot. */
final class ReceivingCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        foreach (['41.0' => 'met', '41.1' => 'broken', '5.0c' => 'met', '5.1c' => 'broken'] as $temp => $verdict) {
            yield "received at $temp" => ['receiving', $verdict, ["0 received temp=$temp"], '1'];
        }
        yield 'received frozen' => ['receiving', 'met', ['0 received frozen=true'], '1'];
        yield 'frozen, and at 32' => ['receiving', 'met', ['0 received temp=32 frozen=true'], '1'];
        yield 'frozen, and a tenth over' => ['receiving', 'broken', ['0 received temp=32.1 frozen=true'], '1'];
        yield 'frozen, and at 0 C' => ['receiving', 'met', ['0 received temp=0.0c frozen=true'], '1'];
        yield 'frozen, and a tenth over in C' => ['receiving', 'broken', ['0 received temp=0.1c frozen=true'], '1'];
        yield 'bought in hot' => ['receiving', 'met', ['0 received temp=135'], '1', 'pork rte_commercial'];
        yield 'bought in a tenth under hot' => [
            'receiving',
            'broken',
            ['0 received temp=134.9'],
            '1',
            'pork rte_commercial',
        ];
        yield 'bought in hot in C' => ['receiving', 'met', ['0 received temp=57.0c'], '1', 'pork rte_commercial'];
        yield 'raw meat is not received hot' => ['receiving', 'broken', ['0 received temp=140'], '1'];
        yield 'received unread' => ['receiving', 'not_shown', ['0 received'], '1'];
    }

    public function testTooWarmIsRefused(): void
    {
        self::assertSame(['receiving.refuse'], self::options('receiving', ['0 received temp=44'], '1'));
        self::assertSame(['receiving.read_now'], self::options('receiving', ['0 received'], '1'));
        self::assertSame([], self::options('receiving', ['0 received temp=40'], '1'));
    }
}
