<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\PasswordHasher\Hasher\PasswordHasherFactoryInterface;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\Site;

/** The people of a site. Who leaves is disabled, never removed; every change says by whom and is in the chain. */
final readonly class People
{
    private const INVITED_FOR = '+3 days';

    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private UserPasswordHasherInterface $hasher,
        private PasswordHasherFactoryInterface $hashers,
        private CommonPasswords $passwords,
        private Now $now,
    ) {
    }

    /** @return list<Account> who is there first, then who has left, by name */
    public function of(Site $site): array
    {
        /** @var list<Account> */
        return $this->entities
            ->createQuery(
                'SELECT a FROM '.Account::class.' a WHERE a.site = :site
                ORDER BY CASE WHEN a.disabledAt IS NULL THEN 0 ELSE 1 END, a.name',
            )
            ->setParameter('site', $site)
            ->getResult();
    }

    public function find(Site $site, string $id): ?Account
    {
        $accounts = $this->entities->getRepository(Account::class);

        return Uuid::isValid($id) ? $accounts->findOneBy(['id' => Uuid::fromString($id), 'site' => $site]) : null;
    }

    /**
     * @return string the one-time link's secret
     *
     * @throws PeopleProblem where the login or the initials are somebody's already
     */
    public function add(Account $person, Account $by): string
    {
        $this->refuseTaken($person);
        try {
            return $this->changed($person, $by, 'added', function () use ($person): string {
                $this->entities->persist($person);

                return $this->invited($person);
            });
        } catch (UniqueConstraintViolationException) {
            throw PeopleProblem::taken('login');
        }
    }

    /** @throws PeopleProblem where nobody would be left to manage the site */
    public function change(Account $person, string $name, Role $role, Account $by): void
    {
        if ($role !== Role::Manager) {
            $this->refuseLastManager($person);
        }
        $this->changed($person, $by, 'changed', static function () use ($person, $name, $role): void {
            $person->name = $name;
            $person->role = $role;
        });
    }

    /**
     * All their sessions end at once.
     *
     * @throws PeopleProblem where nobody would be left to manage the site
     */
    public function disable(Account $person, Account $by): void
    {
        $this->refuseLastManager($person);
        $this->changed($person, $by, 'disabled', function () use ($person): void {
            $person->disabledAt = new \DateTimeImmutable('@'.$this->now->instant()->epoch);
            $person->inviteHash = $person->inviteUntil = $person->pinHash = null;
            ++$person->sessionRound;
        });
    }

    public function enable(Account $person, Account $by): string
    {
        return $this->changed($person, $by, 'enabled', function () use ($person): string {
            $person->disabledAt = null;
            $person->forgetPassword();

            return $this->invited($person);
        });
    }

    /**
     * A new one-time link: the password they had is forgotten, their sessions end.
     *
     * @return string the link's secret
     */
    public function invite(Account $person, Account $by): string
    {
        return $this->changed($person, $by, 'invited', function () use ($person): string {
            $person->forgetPassword();
            $person->factorSecret = $person->pinHash = null;
            ++$person->sessionRound;

            return $this->invited($person);
        });
    }

    public function signOutEverywhere(Account $person, Account $by): void
    {
        $this->changed($person, $by, 'signed_out', static function () use ($person): void {
            ++$person->sessionRound;
        });
    }

    /** Whoever a link was made for; null where it was used, is too old, or is none of ours. */
    public function invitedBy(string $secret): ?Account
    {
        $person = $this->entities->getRepository(Account::class)->findOneBy(['inviteHash' => self::hash($secret)]);
        $until = $person?->inviteUntil?->getTimestamp() ?? 0;

        return $person === null || $person->isDisabled() || $until < $this->now->instant()->epoch ? null : $person;
    }

    /** @throws PeopleProblem where it is too short, or one that everybody tries first */
    public function setPassword(Account $person, string $password): void
    {
        $problem = $this->passwords->problem($password, [
            $person->login,
            $person->site->name,
            ...explode(' ', $person->name),
        ]);
        if ($problem !== null) {
            throw PeopleProblem::password($problem);
        }
        $hash = $this->hasher->hashPassword($person, $password);
        $this->changed($person, $person, 'password', static function () use ($person, $hash): void {
            $person->setHashedPassword($hash);
            ++$person->sessionRound;
        });
    }

    /** What they type on a shared tablet. */
    public function setPin(Account $person, string $pin): void
    {
        $hash = $this->hashers->getPasswordHasher(Account::class)->hash($pin);
        $this->changed($person, $person, 'pin', static function () use ($person, $hash): void {
            $person->pinHash = $hash;
        });
    }

    /**
     * @param string|null $secret in base 32; null takes the second factor away
     * @param list<string> $recovery hashes
     */
    public function setFactor(Account $person, ?string $secret, int $step, array $recovery): void
    {
        $what = $secret === null ? 'factor_off' : 'factor_on';
        $this->changed($person, $person, $what, static function () use ($person, $secret, $step, $recovery): void {
            $person->factorSecret = $secret;
            $person->factorStep = $step;
            $person->recoveryHashes = $recovery;
        });
    }

    /** @param string|null $recovery the hash of a code that is good no more */
    public function factorUsed(Account $person, int $step, ?string $recovery): void
    {
        $person->factorStep = $step;
        $person->recoveryHashes = array_values(
            array_filter($person->recoveryHashes, static fn (string $hash): bool => $hash !== $recovery),
        );
        $this->entities->flush();
    }

    /** @return list<PersonChange> the latest first */
    public function changes(Site $site, int $most): array
    {
        /**
         * @var list<array{at: int, initials: string, what: string, name: string, before: string, after: string}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            <<<SQL
            SELECT extract(epoch FROM c.recorded_at)::bigint AS at, c.initials, c.what, a.name, c.before, c.after
            FROM account_change c JOIN account a ON a.id = c.subject_id
            WHERE c.site_id = ? ORDER BY c.seq DESC LIMIT $most
            SQL,
            [$site->id->toRfc4122()],
        );

        return array_map(PersonChange::ofRow(...), $rows);
    }

    private function invited(Account $person): string
    {
        $secret = rtrim(strtr(base64_encode(random_bytes(24)), '+/', '-_'), '=');
        $person->inviteHash = self::hash($secret);
        $person->inviteUntil = (new \DateTimeImmutable('@'.$this->now->instant()->epoch))->modify(self::INVITED_FOR);

        return $secret;
    }

    private static function hash(string $secret): string
    {
        return hash('sha256', $secret);
    }

    private function refuseTaken(Account $person): void
    {
        foreach (['login', 'initials'] as $field) {
            $taken = $this->connection->fetchOne(
                $field === 'login'
                    ? 'SELECT 1 FROM account WHERE lower(login) = lower(:value)'
                    : 'SELECT 1 FROM account WHERE site_id = :site AND upper(initials) = upper(:value)',
                ['value' => $person->{$field}] + ($field === 'login' ? [] : ['site' => $person->site->id->toRfc4122()]),
            );
            if ($taken !== false) {
                throw PeopleProblem::taken($field);
            }
        }
    }

    private function refuseLastManager(Account $person): void
    {
        $others = $this->connection->fetchOne(
            <<<'SQL'
            SELECT count(*) FROM account
            WHERE site_id = ? AND role = 'manager' AND disabled_at IS NULL AND password <> '' AND id <> ?
            SQL,
            [$person->site->id->toRfc4122(), $person->id->toRfc4122()],
        );
        if ($person->role === Role::Manager && $others === 0) {
            throw PeopleProblem::lastManager();
        }
    }

    /**
     * @template T
     *
     * @param \Closure(): T $change
     *
     * @return T
     */
    private function changed(Account $person, Account $by, string $what, \Closure $change): mixed
    {
        return $this->connection->transactional(function () use ($person, $by, $what, $change): mixed {
            // The chain's lock comes before any other.
            $this->connection->executeStatement('SELECT 1 FROM site WHERE id = ? FOR NO KEY UPDATE', [
                $person->site->id->toRfc4122(),
            ]);
            $before = $what === 'added' ? [] : self::said($person);
            $result = $change();
            $this->entities->flush();
            $this->connection->insert('account_change', [
                'id' => Uuid::v7()->toRfc4122(),
                'site_id' => $person->site->id->toRfc4122(),
                'subject_id' => $person->id->toRfc4122(),
                'recorded_at' => $this->now->instant()->rfc3339(),
                'account_id' => $by->id->toRfc4122(),
                'initials' => $by->initials,
                'what' => $what,
                'before' => json_encode((object) $before, \JSON_THROW_ON_ERROR),
                'after' => json_encode((object) self::said($person), \JSON_THROW_ON_ERROR),
            ]);

            return $result;
        });
    }

    /** @return array<string, string|bool> */
    private static function said(Account $person): array
    {
        return [
            'login' => $person->login,
            'name' => $person->name,
            'initials' => $person->initials,
            'role' => $person->role->value,
            'disabled' => $person->isDisabled(),
        ];
    }
}
