<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Security\Core\Exception\UnsupportedUserException;
use Symfony\Component\Security\Core\Exception\UserNotFoundException;
use Symfony\Component\Security\Core\User\UserInterface;
use Symfony\Component\Security\Core\User\UserProviderInterface;
use Verjuicer\App\Site\Tenancy\Tenant;

/**
 * Who logs in, and in which of their sites they are then: the one they were in last, or else the first.
 *
 * @implements UserProviderInterface<Account>
 */
final readonly class Accounts implements UserProviderInterface
{
    public function __construct(private EntityManagerInterface $entities, private Tenant $tenant)
    {
    }

    public function loadUserByIdentifier(string $identifier): Account
    {
        $this->tenant->hold(mb_strtolower($identifier));
        /** @var Person|null $person */
        $person = $this->entities
            ->createQuery('SELECT p FROM '.Person::class.' p WHERE lower(p.login) = lower(:login)')
            ->setParameter('login', $identifier)
            ->getOneOrNullResult();
        if ($person === null) {
            throw new UserNotFoundException();
        }

        return $this->begin($person) ?? throw new UserNotFoundException();
    }

    /** For the console: a person's account in the site of that name, or in their last one. */
    public function named(string $login, ?string $site = null): ?Account
    {
        try {
            $account = $this->loadUserByIdentifier($login);
        } catch (UserNotFoundException) {
            return null;
        }
        foreach ($site === null ? [] : $this->of($account->person) as $other) {
            if ($other->site->name === $site) {
                return $other;
            }
        }

        return $site === null ? $account : null;
    }

    /** Enters the person's first site; null without one. */
    public function begin(Person $person): ?Account
    {
        $this->tenant->recognise($person->id);
        $accounts = $this->of($person);
        $works = array_filter($accounts, static fn (Account $one): bool => !$one->isDisabled());
        $id = $person->lastAccountId;
        $last = array_filter($works, static fn (Account $one): bool => $id?->equals($one->id) === true);
        $begins = [...$last, ...$works, ...$accounts][0] ?? null;
        if ($begins !== null) {
            $this->tenant->enter($begins->siteId(), $person->id);
        }

        return $begins;
    }

    /** @return list<Account> of the sites the person works in, or did, the first first; only those visible to them */
    public function of(Person $person): array
    {
        // Not DQL: this is asked on every request, and would be parsed on each.
        $accounts = $this->entities->getRepository(Account::class)->findBy(['person' => $person->id]);
        $place = static fn (Account $one): array => [$one->site->name, (string) $one->id];
        usort($accounts, static fn (Account $one, Account $other): int => $place($one) <=> $place($other));

        return $accounts;
    }

    public function refreshUser(UserInterface $user): Account
    {
        if (!$user instanceof Account) {
            throw new UnsupportedUserException();
        }
        if (!$user->hasSite()) {
            throw new UserNotFoundException();
        }
        $this->tenant->enter($user->siteId(), $user->person->id);

        $found = null;
        $elsewhere = [];
        foreach ($this->of($user->person) as $account) {
            if ($account->id->equals($user->id)) {
                $found = $account;
            } elseif (!$account->isDisabled()) {
                $elsewhere[] = $account;
            }
        }
        if ($found === null) {
            throw new UserNotFoundException();
        }
        $found->elsewhere = $elsewhere;

        return $found;
    }

    public function supportsClass(string $class): bool
    {
        return is_a($class, Account::class, true);
    }
}
