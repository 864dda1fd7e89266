<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Packet;

/** Asks the worker to make the PDF of a packet that was asked for. */
final readonly class MakePacket
{
    public function __construct(public string $packetId)
    {
    }
}
