<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Doctrine\Bundle\DoctrineBundle\Attribute\AsDoctrineListener;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\Event\OnFlushEventArgs;
use Doctrine\ORM\Event\PostPersistEventArgs;
use Doctrine\ORM\Event\PostUpdateEventArgs;
use Doctrine\ORM\Events;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Holding\HoldUnit;
use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Recipe\Recipe;
use Verjuicer\App\Catalogue\Supplier\Supplier;
use Verjuicer\App\Catalogue\Thermometer\Thermometer;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Proof\Statement;

/**
 * Signs every change the application makes to settings, people, thermometers, products, recipes, pits, units and
 * suppliers, in the same transaction, with the site's key, which the database does not hold. An unsigned change was
 * made outside the application.
 */
#[AsDoctrineListener(Events::onFlush)]
#[AsDoctrineListener(Events::postPersist)]
#[AsDoctrineListener(Events::postUpdate)]
final class AuthoredChanges
{
    /** Tables whose every change has an author, and their entities. */
    public const TABLES = [
        'site' => Site::class,
        'account' => Account::class,
        'thermometer' => Thermometer::class,
        'product' => Product::class,
        'recipe' => Recipe::class,
        'pit' => Pit::class,
        'hold_unit' => HoldUnit::class,
        'supplier' => Supplier::class,
    ];

    private int $before = 0;

    public function __construct(private readonly SiteKeys $keys, private readonly Security $security)
    {
    }

    /** Earlier signatures are not of this transaction. */
    public function onFlush(OnFlushEventArgs $event): void
    {
        $unit = $event->getObjectManager()->getUnitOfWork();
        foreach ([...$unit->getScheduledEntityInsertions(), ...$unit->getScheduledEntityUpdates()] as $entity) {
            if (self::table($entity) !== null) {
                $seq = $event->getObjectManager()->getConnection()->fetchOne('SELECT max(seq) FROM row_kept');
                $this->before = \is_int($seq) ? $seq : 0;

                return;
            }
        }
    }

    public function postPersist(PostPersistEventArgs $event): void
    {
        $this->sign($event->getObject(), $event->getObjectManager()->getConnection());
    }

    public function postUpdate(PostUpdateEventArgs $event): void
    {
        $this->sign($event->getObject(), $event->getObjectManager()->getConnection());
    }

    private function sign(object $entity, Connection $connection): void
    {
        $table = self::table($entity);
        if ($table === null) {
            return;
        }
        $site = $entity instanceof Site ? $entity : $entity->site ?? null;
        $rowId = $entity->id ?? null;
        \assert($site instanceof Site && $rowId instanceof Uuid, 'each of them is of a site');
        /** @var list<array{id: string, digest: string}> $kept */
        $kept = $connection->fetchAllAssociative(
            <<<'SQL'
            SELECT id, encode(sha256(convert_to(content::text, 'UTF8')), 'hex') AS digest FROM row_kept
            WHERE site_id = ? AND of_table = ? AND row_id = ? AND seq > ?
            SQL,
            [$site->id->toRfc4122(), $table, $rowId->toRfc4122(), $this->before],
        );
        $user = $this->security->getUser();
        $by = $user instanceof Account ? $user : null;
        foreach ($kept as $one) {
            $initials = $by->initials ?? '';
            $connection->executeStatement(
                <<<'SQL'
                INSERT INTO row_author (id, site_id, kept_id, account_id, initials, signature, recorded_at)
                SELECT ?, site_id, id, ?, ?, ?, recorded_at FROM row_kept WHERE id = ?
                SQL,
                [
                    Uuid::v7()->toRfc4122(),
                    $by?->id->toRfc4122(),
                    $initials,
                    $this->keys->sign(
                        $site,
                        Statement::change($site->id->toRfc4122(), $one['id'], $one['digest'], $initials),
                    ),
                    $one['id'],
                ],
            );
        }
    }

    private static function table(object $entity): ?string
    {
        foreach (self::TABLES as $table => $class) {
            if ($entity instanceof $class) {
                return $table;
            }
        }

        return null;
    }
}
