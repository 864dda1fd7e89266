<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Platform;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\App\Platform\Mqtt\Broker;
use Verjuicer\App\Platform\Mqtt\MqttLost;
use Verjuicer\App\Platform\Mqtt\MqttPacket;

/** What a broker sends, read byte by byte as it comes. */
final class MqttPacketTest extends TestCase
{
    /** @return iterable<string, array{string, int, string}> bytes before the body, its length, and the body */
    public static function packets(): iterable
    {
        yield 'empty' => ["\xD0\x00", 0, ''];
        yield 'one byte of length' => ["\x32\x7F", 127, str_repeat('a', 127)];
        yield 'two' => ["\x32\x80\x01", 128, str_repeat('a', 128)];
        yield 'three' => ["\x32\x80\x80\x01", 16_384, str_repeat('a', 16_384)];
    }

    #[DataProvider('packets')]
    public function testItIsThereWhenAllOfItIs(string $head, int $length, string $body): void
    {
        $bytes = $head.$body.'more';
        $packet = MqttPacket::first($bytes);
        self::assertNotNull($packet);
        self::assertSame($length, \strlen($packet->body));
        self::assertSame(\strlen($head) + $length, $packet->length);
        self::assertSame(\ord($head[0]) >> 4, $packet->type);
        self::assertSame(\ord($head[0]) & 0x0F, $packet->flags);
        for ($cut = 0; $cut < $packet->length; $cut += max(1, intdiv($packet->length, 50))) {
            self::assertNull(MqttPacket::first(substr($bytes, 0, $cut)), "$cut bytes of it");
        }
    }

    public function testALengthWithoutAnEndIsNoPacket(): void
    {
        $this->expectException(MqttLost::class);
        MqttPacket::first("\x32\xFF\xFF\xFF\xFF\x01");
    }

    public function testABrokerThatNobodyNamedOrThatIsNotThereIsSaidSo(): void
    {
        foreach (['' => 'must say where', 'tcp://127.0.0.1:1' => 'refused'] as $url => $words) {
            try {
                (new Broker($url))->connect('test');
                self::fail('It answered.');
            } catch (MqttLost $problem) {
                self::assertStringContainsString($words, $problem->getMessage());
            }
        }
    }
}
