<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Packet;

use Symfony\Component\Messenger\Attribute\AsMessageHandler;

/** Makes packets, one after the other. One that is made stays as it was handed on. */
#[AsMessageHandler(sign: true)]
final readonly class MakePacketHandler
{
    public function __construct(private Packets $packets, private PacketMaker $maker)
    {
    }

    /** @throws \Throwable after the waiting person has been notified */
    public function __invoke(MakePacket $message): void
    {
        $packet = $this->packets->find($message->packetId);
        if ($packet === null || $packet->finishedAt !== null) {
            return;
        }
        try {
            $this->maker->make($packet);
        } catch (\Throwable $problem) {
            $this->packets->fail($packet, $problem->getMessage());

            throw $problem;
        }
    }
}
