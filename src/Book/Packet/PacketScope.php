<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Packet;

/** What a packet is about: a range of days, and within it a batch, a lot or a product where one is named. */
final readonly class PacketScope
{
    public function __construct(
        public string $from,
        public string $to,
        public string $batch = '',
        public string $lot = '',
        public string $product = '',
    ) {
    }

    public static function ofJson(string $json): self
    {
        $scope = json_decode($json, true, flags: \JSON_THROW_ON_ERROR);
        $text = static fn (string $name): string => \is_array($scope) && \is_string($scope[$name] ?? null)
            ? $scope[$name]
            : '';

        return new self($text('from'), $text('to'), $text('batch'), $text('lot'), $text('product'));
    }

    /** Whether it is of all there is of its days. */
    public function isWhole(): bool
    {
        return $this->batch.$this->lot.$this->product === '';
    }

    public function json(): string
    {
        return json_encode(get_object_vars($this), \JSON_THROW_ON_ERROR);
    }

    /** In a few words: "2026-11-19 to 2026-11-25, lot RR-4471". */
    public function words(): string
    {
        return implode(
            ', ',
            array_filter(
                [
                    $this->from === $this->to ? $this->from : $this->from.' – '.$this->to,
                    $this->batch,
                    $this->lot,
                    $this->product,
                ],
                static fn (string $part): bool => $part !== '',
            ),
        );
    }
}
