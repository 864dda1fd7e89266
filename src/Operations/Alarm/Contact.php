<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

/** How somebody is reached. */
final readonly class Contact
{
    public function __construct(
        public string $accountId,
        public string $name,
        public string $initials,
        public string $role,
        public string $mail,
        public string $phone,
    ) {
    }

    /** Where a channel reaches them; '' where it does not. */
    public function address(AlarmChannel $channel): string
    {
        return $channel === AlarmChannel::Mail ? $this->mail : $this->phone;
    }

    /** @param list<AlarmChannel> $channels any of these */
    public function isReachedBy(array $channels): bool
    {
        return array_filter($channels, fn (AlarmChannel $one): bool => $this->address($one) !== '') !== [];
    }
}
