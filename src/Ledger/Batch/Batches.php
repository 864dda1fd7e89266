<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Batch;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Tenancy\Tenant;

/** The batches of the site that was entered; another kitchen's are not there. */
final readonly class Batches
{
    private const HIGHEST_TAG = 999;

    public function __construct(
        private EntityManagerInterface $entities,
        private Connection $connection,
        private CurrentAccount $account,
        private Tenant $tenant,
    ) {
    }

    /** @throws NotFoundHttpException if the site has no batch of this id */
    public function get(string $id): Batch
    {
        $batch = Uuid::isValid($id) ? $this->entities->find(Batch::class, Uuid::fromString($id)) : null;
        // Sensor data arrives without a logged-in person.
        $site = $this->tenant->site() ?? $this->account->get()->site->id;
        if ($batch === null || !$batch->site->id->equals($site)) {
            throw new NotFoundHttpException();
        }

        return $batch;
    }

    /**
     * The batch that an event of this one was recorded for: itself, or the batch it was split from, whose events it
     * shares.
     *
     * @throws NotFoundHttpException if the site has no batch of this id
     */
    public function ofEvent(string $id, string $event): Batch
    {
        $batch = $this->get($id);
        $owner = $this->connection->fetchOne('SELECT batch_id FROM event WHERE id = ?', [$event]);
        for ($one = $batch; $one !== null; $one = $one->parent) {
            if ($one->id->toRfc4122() === $owner) {
                return $one;
            }
        }

        return $batch;
    }

    /** The open batch with this tag, if there is one. */
    public function tagged(Site $site, int $tag): ?Batch
    {
        $id = $this->connection->fetchOne('SELECT batch_id FROM open_tag WHERE site_id = ? AND tag = ?', [
            $site->id->toRfc4122(),
            $tag,
        ]);

        return \is_string($id) ? $this->entities->find(Batch::class, Uuid::fromString($id)) : null;
    }

    public function isOpen(Batch $batch): bool
    {
        return $this->connection->fetchOne('SELECT 1 FROM open_tag WHERE batch_id = ?', [$batch->id->toRfc4122()])
            !== false;
    }

    /** @return list<int> */
    public function tagsInUse(Site $site): array
    {
        /** @var list<int> */
        return $this->connection->fetchFirstColumn('SELECT tag FROM open_tag WHERE site_id = ? ORDER BY tag', [
            $site->id->toRfc4122(),
        ]);
    }

    /** @return list<int> tags that are on no open batch, from this one up */
    public function freeTags(Site $site, int $from, int $count): array
    {
        $inUse = array_fill_keys($this->tagsInUse($site), true);
        $free = [];
        for ($tag = max(1, $from); \count($free) < $count && $tag <= self::HIGHEST_TAG; ++$tag) {
            if (!isset($inUse[$tag])) {
                $free[] = $tag;
            }
        }

        return $free;
    }

    /** @return list<Batch> portions of a batch, by letter */
    public function portionsOf(Batch $batch): array
    {
        return $this->entities->getRepository(Batch::class)->findBy(['parent' => $batch], ['code' => 'ASC']);
    }
}
