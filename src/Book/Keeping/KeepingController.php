<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Keeping;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Verjuicer\App\Ledger\Chain\SiteChain;
use Verjuicer\App\Platform\Machine\MachineStates;
use Verjuicer\App\Platform\Machine\Version;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\Core\Measure\LocalDate;

/** What there is on record, until when it must be kept, and what the chain over it comes to. */
final class KeepingController extends AbstractController
{
    public function __construct(
        private readonly KeptRecords $records,
        private readonly SiteChain $chain,
        private readonly MachineStates $machine,
        private readonly Version $version,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('/keeping', name: 'keeping', methods: ['GET'])]
    public function show(): Response
    {
        $site = $this->account->get()->site;

        return $this->render('book/keeping/keeping.html.twig', [
            'site' => $site,
            'kept' => $this->records->of($site, LocalDate::ofInstant($this->now->instant(), $site->zone())),
            'seal' => $this->chain->seal($site),
            'machine' => $this->machine->all(),
            'version' => $this->version->words(),
        ]);
    }
}
