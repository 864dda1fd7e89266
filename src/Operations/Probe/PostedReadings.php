<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Verjuicer\Core\Json\DocumentProblem;
use Verjuicer\Core\Json\DocumentProblems;
use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Measure\Instant;

/**
 * What a sensor sends, over HTTP or MQTT alike: its readings, the time it is by its clock, its battery. A reading that
 * cannot be read has its problem beside it and stands in nobody's way.
 */
final readonly class PostedReadings
{
    public const MOST = 1000;

    /**
     * @param list<PostedReading> $readings in the order sent
     * @param list<DocumentProblem> $problems of the whole of it; nothing of it is taken then
     */
    private function __construct(
        public array $readings,
        public ?Instant $sentAt,
        public ?int $batteryPercent,
        public array $problems,
    ) {
    }

    public static function read(string $json): self
    {
        $problems = new DocumentProblems();
        $data = json_decode($json, false, 32);
        if (!$data instanceof \stdClass) {
            return self::refused('must be a JSON object with "readings"', '');
        }
        $fields = new Fields($data, null, '', $problems);
        $sentAt = $fields->instant('sent_at');
        if ($sentAt !== null && !PostedReading::isPlausible($sentAt)) {
            $fields->wrong('sent_at', 'must lie between 1970 and 2100: set the clock of the sensor, or leave it out');
        }
        $battery = $fields->whole('battery_percent');
        if ($battery !== null && ($battery < 0 || $battery > 100)) {
            $fields->wrong('battery_percent', 'must be a whole number from 0 to 100');
        }
        $list = $data->readings ?? null;
        if (!\is_array($list)) {
            $problems->add('/readings', 'is missing: a list of readings is required');
            $list = [];
        }
        if (\count($list) > self::MOST) {
            return self::refused(
                \sprintf('holds more than %d: send the rest in another request', self::MOST),
                '/readings',
            );
        }
        if ($problems->all() !== []) {
            return new self([], null, null, $problems->all());
        }
        $readings = [];
        foreach (array_values($list) as $index => $one) {
            $readings[] = PostedReading::read($one, "/readings/$index");
        }

        return new self($readings, $sentAt, $battery, []);
    }

    private static function refused(string $message, string $pointer): self
    {
        return new self([], null, null, [new DocumentProblem($pointer, $message)]);
    }
}
