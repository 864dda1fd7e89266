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
use Verjuicer\App\Platform\Wording\Language;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Tenancy\Tenant;

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
        private Accounts $accounts,
        private Tenant $tenant,
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
     * @throws PeopleProblem if the login or the initials are taken
     */
    public function add(Account $person, Account $by): string
    {
        if ($person->role === Role::Owner && $by->role !== Role::Owner) {
            throw PeopleProblem::ownersOnly();
        }
        $this->refuseTaken($person);
        try {
            return $this->changed($person, $by, 'added', function () use ($person): string {
                $this->entities->persist($person);

                return $this->invited($person->person);
            });
        } catch (UniqueConstraintViolationException) {
            throw PeopleProblem::taken('login');
        }
    }

    /** @throws PeopleProblem if the site would have no manager left, or only an owner may */
    public function change(Account $person, string $name, Role $role, string $languages, Account $by): void
    {
        $this->refuseAboveOneself($person, $by);
        if ($role === Role::Owner && $by->role !== Role::Owner) {
            throw PeopleProblem::ownersOnly();
        }
        if (!$role->manages()) {
            $this->refuseLastManager($person);
        }
        $this->changed($person, $by, 'changed', static function () use ($person, $name, $role, $languages): void {
            $person->name = $name;
            $person->role = $role;
            $person->languages = $languages;
        });
    }

    /**
     * They are out at once; who works elsewhere still does.
     *
     * @throws PeopleProblem if the site would have no manager left, or only an owner may
     */
    public function disable(Account $person, Account $by): void
    {
        $this->refuseAboveOneself($person, $by);
        $this->refuseLastManager($person);
        $this->changed($person, $by, 'disabled', function () use ($person): void {
            $person->disabledAt = new \DateTimeImmutable('@'.$this->now->instant()->epoch);
            $person->pinHash = null;
            if (!$this->worksElsewhere($person)) {
                $person->person->inviteHash = $person->person->inviteUntil = null;
                ++$person->person->sessionRound;
            }
        });
    }

    /** @return string|null the secret of a new one-time link; none for who works elsewhere, and logs in as there */
    public function enable(Account $person, Account $by): ?string
    {
        $this->refuseAboveOneself($person, $by);

        return $this->changed($person, $by, 'enabled', function () use ($person): ?string {
            $person->disabledAt = null;
            if ($this->worksElsewhere($person)) {
                return null;
            }
            $person->person->password = '';

            return $this->invited($person->person);
        });
    }

    /**
     * A new one-time link: the password they had is forgotten, their sessions end.
     *
     * @return string the link's secret
     *
     * @throws PeopleProblem if only an owner may: the link gives its receiver the person's rights in all their sites
     */
    public function invite(Account $person, Account $by): string
    {
        $this->refuseAboveOneself($person, $by);
        if ($person !== $by && $by->role !== Role::Owner && $this->worksElsewhere($person)) {
            throw PeopleProblem::ownersOnly();
        }

        return $this->changed($person, $by, 'invited', function () use ($person): string {
            $person->person->password = '';
            $person->person->factorSecret = $person->pinHash = null;
            ++$person->person->sessionRound;

            return $this->invited($person->person);
        });
    }

    /**
     * A person of one site of an organisation starts to work in another, too.
     *
     * @param Account $by an owner's account in that site
     *
     * @throws PeopleProblem if they already do, or the initials are taken there
     */
    public function letWork(Account $person, Account $by): void
    {
        $this->refuseInitials($person);
        try {
            $this->changed($person, $by, 'added', function () use ($person): void {
                $this->entities->persist($person);
            });
        } catch (UniqueConstraintViolationException) {
            throw PeopleProblem::taken('site');
        }
    }

    public function signOutEverywhere(Account $person, Account $by): void
    {
        $this->refuseAboveOneself($person, $by);
        $this->changed($person, $by, 'signed_out', static function () use ($person): void {
            ++$person->person->sessionRound;
        });
    }

    /** The person a link was made for; null if it was used, is too old, or is unknown. */
    public function invitedBy(string $secret): ?Account
    {
        $hash = self::hash($secret);
        $this->tenant->hold($hash);
        $person = $this->entities->getRepository(Person::class)->findOneBy(['inviteHash' => $hash]);
        if ($person === null || ($person->inviteUntil?->getTimestamp() ?? 0) < $this->now->instant()->epoch) {
            return null;
        }
        $account = $this->accounts->begin($person);

        return $account?->isDisabled() === false ? $account : null;
    }

    /** @throws PeopleProblem where it is too short, or one that everybody tries first */
    public function setPassword(Account $person, string $password): void
    {
        $problem = $this->passwords->problem($password, [
            $person->person->login,
            $person->site->name,
            ...explode(' ', $person->name),
        ]);
        if ($problem !== null) {
            throw PeopleProblem::password($problem);
        }
        $hash = $this->hasher->hashPassword($person, $password);
        $this->changed($person, $person, 'password', static function () use ($person, $hash): void {
            $person->person->setHashedPassword($hash);
            ++$person->person->sessionRound;
        });
    }

    /** In which they read, in each of their sites; null for that of the browser. */
    public function setLanguage(Account $own, ?Language $language): void
    {
        $own->person->language = $language;
        $this->entities->flush();
    }

    /** The PIN for shared tablets. */
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
            $person->person->factorSecret = $secret;
            $person->person->factorStep = $step;
            $person->person->recoveryHashes = $recovery;
        });
    }

    public function sealFactorSecret(Person $person, string $sealed): void
    {
        $this->connection->executeStatement(
            'UPDATE person SET factor_secret = ? WHERE id = ?',
            [$sealed, $person->id->toRfc4122()],
        );
        $person->factorSecret = $sealed;
    }

    /** Whether this step of time was not used before; from now on it is. The database decides between two at once. */
    public function useFactorStep(Person $person, int $step): bool
    {
        $isFirst = $this->connection->executeStatement(
            'UPDATE person SET factor_step = ? WHERE id = ? AND factor_step < ?',
            [$step, $person->id->toRfc4122(), $step],
        ) === 1;
        if ($isFirst) {
            $person->factorStep = $step;
        }

        return $isFirst;
    }

    /** @param string $hash of a code for the loss of the authenticator: it is good once, also between two at once */
    public function useRecoveryCode(Person $person, string $hash): bool
    {
        $isFirst = $this->connection->executeStatement(
            <<<'SQL'
            UPDATE person SET recovery_hashes = (recovery_hashes::jsonb - ?)::json
            WHERE id = ? AND jsonb_exists(recovery_hashes::jsonb, ?)
            SQL,
            [$hash, $person->id->toRfc4122(), $hash],
        ) === 1;
        if ($isFirst) {
            $this->entities->refresh($person);
        }

        return $isFirst;
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

    private function invited(Person $person): string
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
        // Also lets the row of the new person in.
        $this->tenant->hold(mb_strtolower($person->person->login));
        $sql = 'SELECT 1 FROM person WHERE lower(login) = lower(?)';
        if ($this->connection->fetchOne($sql, [$person->person->login]) !== false) {
            throw PeopleProblem::taken('login');
        }
        $this->refuseInitials($person);
    }

    private function refuseInitials(Account $person): void
    {
        $sql = 'SELECT 1 FROM account WHERE site_id = ? AND upper(initials) = upper(?)';
        if ($this->connection->fetchOne($sql, [$person->site->id->toRfc4122(), $person->initials]) !== false) {
            throw PeopleProblem::taken('initials');
        }
    }

    /** Rights of an owner in every site: no manager of one site grants or removes them. */
    private function refuseAboveOneself(Account $person, Account $by): void
    {
        if ($person->role === Role::Owner && $by->role !== Role::Owner) {
            throw PeopleProblem::ownersOnly();
        }
    }

    private function worksElsewhere(Account $person): bool
    {
        return $this->connection->fetchOne('SELECT works_elsewhere(?, ?)', [
            $person->person->id->toRfc4122(),
            $person->site->id->toRfc4122(),
        ]) === true;
    }

    private function refuseLastManager(Account $person): void
    {
        $others = $this->connection->fetchOne(
            <<<'SQL'
            SELECT count(*) FROM account a JOIN person p ON p.id = a.person_id
            WHERE a.site_id = ? AND a.role IN ('manager', 'owner') AND a.disabled_at IS NULL AND p.password <> ''
              AND a.id <> ?
            SQL,
            [$person->site->id->toRfc4122(), $person->id->toRfc4122()],
        );
        if ($person->role->manages() && $others === 0) {
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
            'login' => $person->person->login,
            'name' => $person->name,
            'initials' => $person->initials,
            'role' => $person->role->value,
            'languages' => $person->languages,
            'disabled' => $person->isDisabled(),
        ];
    }
}
