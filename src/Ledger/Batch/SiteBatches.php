<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Batch;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\People\CurrentAccount;

/** The batches of the site of whoever is at the screen; another kitchen's are not there. */
final readonly class SiteBatches
{
    public function __construct(private EntityManagerInterface $entities, private CurrentAccount $account)
    {
    }

    /** @throws NotFoundHttpException if the site has no batch of this id */
    public function get(string $id): Batch
    {
        $batch = Uuid::isValid($id) ? $this->entities->find(Batch::class, Uuid::fromString($id)) : null;
        if ($batch === null || !$batch->site->id->equals($this->account->get()->site->id)) {
            throw new NotFoundHttpException();
        }

        return $batch;
    }
}
