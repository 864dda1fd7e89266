<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Retention;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Ledger\Chain\KeyLog;
use Verjuicer\App\Ledger\Chain\MutableRows;
use Verjuicer\App\Ledger\Chain\RecordingClock;
use Verjuicer\App\Ledger\Chain\SiteChain;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Machine\MachineStates;
use Verjuicer\App\Platform\Machine\Version;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\People\DeniedToPin;
use Verjuicer\Core\Measure\LocalDate;

/** Record retention: the records, until when they must be kept, and the fingerprint of their chain. */
final class RetentionController extends FormController
{
    public function __construct(
        private readonly RetentionReport $records,
        private readonly SiteChain $chain,
        private readonly RecordingClock $clock,
        private readonly KeyLog $keys,
        private readonly MutableRows $rows,
        private readonly Ledger $ledger,
        private readonly MachineStates $machine,
        private readonly Version $version,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('/keeping', name: 'keeping', methods: ['GET'])]
    public function show(): Response
    {
        return $this->view($this->blank());
    }

    /** Later entries are compared with the clock as it is now. */
    #[IsGranted('ROLE_MANAGER')]
    #[DeniedToPin]
    #[Route('/keeping/clock', name: 'keeping_clock', methods: ['POST'])]
    public function vouch(Request $request): Response
    {
        $input = $this->read($request, 'clock');
        $id = $input->id();
        $reason = $input->text('reason', true);
        $by = $this->account->get();
        $last = $this->clock->last($by->site);
        if (!$input->isGood() || $last === null) {
            return $this->view($input);
        }
        $this->ledger->write(
            $by->site,
            function () use ($id, $by, $last, $reason): void {
                $this->clock->vouch($id, $by, $last, $this->now->instant(), $reason);
                // The board was judged by another clock.
                $this->ledger->changedAll($by->site);
            },
            trusts: true,
        );

        return $this->kept('clock.vouched', 'keeping');
    }

    private function view(FormInput $input): Response
    {
        $site = $this->account->get()->site;
        $now = $this->now->instant();
        $last = $this->clock->last($site);

        return $this->page('reporting/retention/retention.html.twig', $input, [
            'site' => $site,
            'kept' => $this->records->of($site, LocalDate::ofInstant($now, $site->zone())),
            'seal' => $this->chain->seal($site),
            'keys' => $this->keys->of($site),
            'unauthored' => $this->rows->unauthored($site),
            'clock' => $last === null || $this->clock->problemOf($site) === null
                ? null
                : ['now' => $now, 'last' => $last],
            'words_of_clock' => $this->clock->words($site),
            'machine' => $this->machine->all(),
            'version' => $this->version->words(),
        ]);
    }
}
