<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

/** How somebody is told. The board tells everybody who stands before one. */
enum AlarmChannel: string
{
    case Mail = 'mail';
    case Text = 'text';
    case Call = 'call';

    /** @return list<self> that are handed on within moments, all at once */
    public static function quick(): array
    {
        return array_values(array_filter(self::cases(), static fn (self $one): bool => !$one->isSlow()));
    }

    /** @return list<self> that may take long, where a server hangs */
    public static function slow(): array
    {
        return array_values(array_filter(self::cases(), static fn (self $one): bool => $one->isSlow()));
    }

    private function isSlow(): bool
    {
        return match ($this) {
            self::Mail => true,
            self::Text, self::Call => false,
        };
    }
}
