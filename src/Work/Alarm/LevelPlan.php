<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Alarm;

/** What is done for alarms of one level. */
final readonly class LevelPlan
{
    /**
     * @param list<Channel> $day while the kitchen is open
     * @param list<Channel> $night what wakes whoever is on duty
     * @param int $minutes after which the next in line is told, too; 0 for never
     */
    public function __construct(public array $day, public array $night, public int $minutes)
    {
    }

    /** @return array{day: list<string>, night: list<string>, minutes: int} */
    public function toArray(): array
    {
        $name = static fn (Channel $one): string => $one->value;

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
                    static fn (mixed $name): ?Channel => \is_string($name) ? Channel::tryFrom($name) : null,
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

    public static function usual(Level $level): self
    {
        return match ($level) {
            Level::Wake => new self([Channel::Text], [Channel::Text, Channel::Call], 5),
            Level::Act => new self([Channel::Text], [Channel::Text], 15),
            Level::Look => new self([], [], 0),
        };
    }
}
