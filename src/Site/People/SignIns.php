<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Doctrine\DBAL\Connection;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\PasswordHasher\Hasher\PasswordHasherFactoryInterface;
use Symfony\Component\Security\Core\Exception\UserNotFoundException;
use Symfony\Component\Security\Http\Authenticator\Passport\Credentials\PasswordCredentials;
use Symfony\Component\Security\Http\Event\LoginFailureEvent;
use Symfony\Component\Security\Http\Event\LoginSuccessEvent;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Now;
use Verjuicer\Core\Measure\Instant;

/** Who logged in, when and from where. */
final readonly class SignIns
{
    private const MOST_SHOWN = 20;

    public function __construct(
        private Connection $connection,
        private PasswordHasherFactoryInterface $hashers,
        private PeopleLog $log,
        private Now $now,
    ) {
    }

    #[AsEventListener]
    public function remember(LoginSuccessEvent $event): void
    {
        $account = $event->getUser();
        if (!$account instanceof Account) {
            return;
        }
        $request = $event->getRequest();
        $this->connection->insert('sign_in', [
            'id' => Uuid::v7()->toRfc4122(),
            'account_id' => $account->id->toRfc4122(),
            'at' => $this->now->instant()->rfc3339(),
            'address' => $request->getClientIp() ?? '',
            'agent' => mb_substr(mb_scrub($request->headers->get('User-Agent') ?? ''), 0, 200),
            'session_round' => $account->person->sessionRound,
        ]);
        if ($event->getPassport()->hasBadge(PasswordCredentials::class)) {
            $this->log->note($account->siteId()->toRfc4122(), $account, 'login');
        }
    }

    /** An unknown name, or one without a password yet, takes as long to refuse as a wrong password. */
    #[AsEventListener]
    public function takeAsLong(LoginFailureEvent $event): void
    {
        $user = null;
        try {
            $user = $event->getPassport()?->getUser();
        } catch (UserNotFoundException) {
        }
        if ($event->getPassport() !== null && (!$user instanceof Account || !$user->hasPassword())) {
            $this->hashers->getPasswordHasher(Account::class)->hash('as long as a real one');
        }
        if ($user instanceof Account) {
            $this->log->note($user->siteId()->toRfc4122(), $user, 'login_failed');
        }
    }

    /** @return list<SignIn> the latest first */
    public function of(Account $account): array
    {
        $most = self::MOST_SHOWN;
        /** @var list<array{at: int, address: string, agent: string, session_round: int}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            <<<SQL
            SELECT extract(epoch FROM at)::bigint AS at, address, agent, session_round FROM sign_in
            WHERE account_id = ? ORDER BY at DESC, id DESC LIMIT $most
            SQL,
            [$account->id->toRfc4122()],
        );

        return array_map(
            static fn (array $row): SignIn => new SignIn(
                Instant::ofEpoch($row['at']),
                $row['address'],
                $row['agent'],
                $row['session_round'] === $account->person->sessionRound,
            ),
            $rows,
        );
    }
}
