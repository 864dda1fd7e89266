<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Alarm;

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
    public function address(Channel $channel): string
    {
        return $channel === Channel::Mail ? $this->mail : $this->phone;
    }

    /** @param list<Channel> $channels any of these */
    public function isReachedBy(array $channels): bool
    {
        return array_filter($channels, fn (Channel $one): bool => $this->address($one) !== '') !== [];
    }
}
