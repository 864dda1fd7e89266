<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

/** What is done for alarms of one level. */
final readonly class EscalationPlan
{
    /**
     * @param list<AlarmChannel> $day while the kitchen is open
     * @param list<AlarmChannel> $night what wakes whoever is on duty
     * @param int $minutes after which the next in line is told, too; 0 for never
     */
    public function __construct(public array $day, public array $night, public int $minutes)
    {
    }

    /** @return array{day: list<string>, night: list<string>, minutes: int} */
    public function toArray(): array
    {
        $name = static fn (AlarmChannel $one): string => $one->value;

        return [
            'day' => array_map($name, $this->day),
            'night' => array_map($name, $this->night),
            'minutes' => $this->minutes,
        ];
    }

    /** @param array<mixed> $written by toArray() */
    public static function ofArray(array $written): self
    {
        $channels = static fn (mixed $names): array => array_values(
            array_filter(
                array_map(
                    static fn (mixed $name): ?AlarmChannel => \is_string($name) ? AlarmChannel::tryFrom($name) : null,
                    \is_array($names) ? $names : [],
                ),
            ),
        );
        $minutes = $written['minutes'] ?? 0;

        return new self(
            $channels($written['day'] ?? []),
            $channels($written['night'] ?? []),
            \is_int($minutes) ? $minutes : 0,
        );
    }

    public static function usual(AlarmLevel $level): self
    {
        return match ($level) {
            AlarmLevel::Wake => new self([AlarmChannel::Text], [AlarmChannel::Text, AlarmChannel::Call], 5),
            AlarmLevel::Act => new self([AlarmChannel::Text], [AlarmChannel::Text], 15),
            AlarmLevel::Look => new self([], [], 0),
        };
    }
}
