<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Packet;

/**
 * The scope of a packet: a range of days, and optionally a batch, a lot or a product. A scope too large for one volume
 * is split into several, each with its batches by name.
 */
final readonly class PacketScope
{
    /**
     * @param string $whole the id of the first volume, where it is one of several
     * @param int $volume its number, from 1
     * @param int $volumes how many there are
     * @param list<string> $ids of its batches, in their order
     */
    public function __construct(
        public string $from,
        public string $to,
        public string $batch = '',
        public string $lot = '',
        public string $product = '',
        public string $whole = '',
        public int $volume = 1,
        public int $volumes = 1,
        public array $ids = [],
    ) {
    }

    public static function ofJson(string $json): self
    {
        $scope = json_decode($json, true, flags: \JSON_THROW_ON_ERROR);
        $scope = \is_array($scope) ? $scope : [];
        $text = static fn (string $name): string => \is_string($scope[$name] ?? null) ? $scope[$name] : '';
        $whole = static fn (string $name): int => \is_int($scope[$name] ?? null) ? $scope[$name] : 1;
        $ids = \is_array($scope['ids'] ?? null) ? array_filter($scope['ids'], \is_string(...)) : [];

        return new self(
            $text('from'),
            $text('to'),
            $text('batch'),
            $text('lot'),
            $text('product'),
            $text('whole'),
            $whole('volume'),
            $whole('volumes'),
            array_values($ids),
        );
    }

    /** @param list<string> $ids */
    public function volume(string $whole, int $volume, int $volumes, array $ids): self
    {
        $of = [$this->from, $this->to, $this->batch, $this->lot, $this->product];

        return new self(...$of, whole: $whole, volume: $volume, volumes: $volumes, ids: $ids);
    }

    /** Whether it is of all there is of its days. */
    public function isWhole(): bool
    {
        return $this->batch.$this->lot.$this->product === '';
    }

    /** Whether it contains the parts about all days, or the volume before it does. */
    public function isFirst(): bool
    {
        return $this->volume === 1;
    }

    public function json(): string
    {
        $ofSeveral = ['whole' => true, 'volume' => true, 'volumes' => true, 'ids' => true];
        $members = get_object_vars($this);

        return json_encode(
            $this->volumes === 1 ? array_diff_key($members, $ofSeveral) : $members,
            \JSON_THROW_ON_ERROR,
        );
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
