<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Packet;

use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Page\ConfiguredAddress;
use Verjuicer\App\Platform\Paging\PageKey;
use Verjuicer\App\Platform\Wording\Language;
use Verjuicer\App\Reporting\Proof\AlteredFile;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\People\PeopleLog;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Span;

/**
 * Inspection packets: requested by days, batch, lot or product; made in the background; read by a link that expires.
 */
final class PacketController extends FormController
{
    private const PAPERS = ['A4', 'Letter'];

    public function __construct(
        private readonly Packets $packets,
        private readonly PacketMaker $maker,
        private readonly Products $products,
        private readonly ConfiguredAddress $address,
        private readonly PeopleLog $log,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('/packets', name: 'packets', methods: ['GET'])]
    public function list(Request $request): Response
    {
        $site = $this->account->get()->site;
        $today = LocalDate::ofInstant($this->now->instant(), $site->zone());
        $week = [
            'from' => $today->plusDays(-6)->iso(),
            'to' => $today->iso(),
            'paper' => 'Letter',
            'language' => $site->language->value,
        ];

        return $this->view($this->blank($week), PageKey::parse($request->query->getString('after')));
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('/packets', name: 'packet_ask', methods: ['POST'])]
    public function ask(Request $request): Response
    {
        $input = $this->read($request, 'packet');
        $id = $input->id();
        $from = $input->day('from');
        $to = $input->day('to');
        $paper = $input->text('paper', true);
        $language = $input->choice('language', Language::class);
        if ($from === null || $to === null || $from > $to) {
            $input->refuse('to', 'packet.problem.range');
        }
        if (!\in_array($paper, self::PAPERS, true)) {
            $input->refuse('paper', 'form.problem.choice');
        }
        if (!$input->isGood() || $from === null || $to === null) {
            return $this->view($input);
        }
        $scope = new PacketScope($from, $to, $input->text('batch'), $input->text('lot'), $input->text('product'));
        $problem = $this->maker->problem($this->account->get()->site, $scope);
        if ($problem !== null) {
            $input->refuse('to', $problem);

            return $this->view($input);
        }
        $volumes = $this->maker->volumes($this->account->get()->site, $scope);
        foreach (\count($volumes) === 1 ? [] : $volumes as $index => $ids) {
            $this->packets->ask(
                $index === 0 ? $id : Uuid::v5($id, 'volume '.($index + 1)),
                $this->account->get(),
                $this->now->instant(),
                $scope->volume($id->toRfc4122(), $index + 1, \count($volumes), $ids),
                $paper,
                $language,
            );
        }
        if (\count($volumes) === 1) {
            $this->packets->ask($id, $this->account->get(), $this->now->instant(), $scope, $paper, $language);
        }

        return $this->redirectToRoute('packet', ['id' => $id->toRfc4122()], Response::HTTP_SEE_OTHER);
    }

    #[Route('/packets/{id}', name: 'packet', methods: ['GET'])]
    public function show(string $id): Response
    {
        return $this->shown($this->find($id), $this->blank(['days' => '7']), null);
    }

    #[Route('/packets/{id}/packet.pdf', name: 'packet_pdf', methods: ['GET'])]
    public function pdf(string $id): Response
    {
        $packet = $this->find($id);
        $this->log->note($packet->siteId, $this->account->get(), 'packet_opened', $packet->id.', PDF');

        return $this->download($packet);
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('/packets/{id}/again', name: 'packet_again', methods: ['POST'])]
    public function again(string $id, Request $request): Response
    {
        $packet = $this->find($id);
        $input = $this->read($request, 'again');
        if (!$input->isGood() || $packet->problem === null) {
            return $this->shown($packet, $input, null);
        }
        $this->packets->again($packet);

        return $this->redirectToRoute('packet', ['id' => $id], Response::HTTP_SEE_OTHER);
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/packets/{id}/share', name: 'packet_share', methods: ['POST'])]
    public function share(string $id, Request $request): Response
    {
        $packet = $this->find($id);
        $input = $this->read($request, 'share');
        $days = $input->whole('days', 1, 90, true);
        $link = null;
        if ($input->isGood() && $days !== null && $packet->finishedAt !== null) {
            $token = $this->packets->share($packet, $this->now->instant()->plus(Span::ofHours(24 * $days)));
            $link = $this->address->of('shared', ['token' => $token]);
            $this->log->note($packet->siteId, $this->account->get(), 'packet_shared', $packet->id);
        }

        return $this->shown($this->find($id), $input, $link);
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/packets/{id}/withdraw', name: 'packet_withdraw', methods: ['POST'])]
    public function withdraw(string $id, Request $request): Response
    {
        $packet = $this->find($id);
        $input = $this->read($request, 'withdraw');
        if (!$input->isGood()) {
            return $this->shown($packet, $input, null);
        }
        $this->packets->withdraw($packet);
        $this->log->note($packet->siteId, $this->account->get(), 'packet_withdrawn', $packet->id);

        return $this->kept('packet.withdrawn', 'packet', ['id' => $id]);
    }

    /** For an inspector without an account: this packet and nothing else, while the link lives. */
    #[Route('/shared/{token}', name: 'shared', requirements: ['token' => '[0-9a-f]{48}'], methods: ['GET'])]
    public function shared(string $token): Response
    {
        $packet = $this->packets->shared($token, $this->now->instant()) ?? throw $this->createNotFoundException();
        $this->log->note($packet->siteId, null, 'packet_opened', $packet->id);

        return $this->render('reporting/packet/shared.html.twig', [
            'packet' => $packet,
            'token' => $token,
            'volumes' => $this->packets->volumes($packet),
        ]);
    }

    #[Route(
        '/shared/{token}/packet.pdf',
        name: 'shared_pdf',
        requirements: ['token' => '[0-9a-f]{48}'],
        methods: ['GET'],
    )]
    public function sharedPdf(string $token, Request $request): Response
    {
        $packet = $this->packets->shared($token, $this->now->instant()) ?? throw $this->createNotFoundException();
        // A link to one volume opens all of them.
        $number = $request->query->getInt('volume', $packet->scope->volume);
        foreach ($this->packets->volumes($packet) as $one) {
            $packet = $one->scope->volume === $number ? $one : $packet;
        }
        $this->log->note($packet->siteId, null, 'packet_opened', $packet->id.', PDF');

        return $this->download($packet);
    }

    /** @param string|null $link a new one, shown once */
    private function shown(Packet $packet, FormInput $input, ?string $link): Response
    {
        return $this->page('reporting/packet/show.html.twig', $input, [
            'packet' => $packet,
            'site' => $this->account->get()->site,
            'link' => $link,
            'volumes' => $this->packets->volumes($packet),
            'openings' => $this->packets->openings($packet),
        ]);
    }

    private function download(Packet $packet): Response
    {
        if ($packet->finishedAt === null) {
            throw $this->createNotFoundException();
        }

        $pdf = $this->packets->pdf($packet);
        if ($packet->sha256 !== null && !hash_equals($packet->sha256, hash('sha256', $pdf))) {
            throw AlteredFile::named('packet');
        }

        return new Response(
            $pdf,
            headers: [
                'Content-Type' => 'application/pdf',
                'Content-Disposition' => HeaderUtils::makeDisposition(
                    HeaderUtils::DISPOSITION_ATTACHMENT,
                    \sprintf(
                        'packet-%s-%s%s.pdf',
                        $packet->scope->from,
                        $packet->scope->to,
                        $packet->scope->volumes === 1 ? '' : '-volume-'.$packet->scope->volume,
                    ),
                ),
            ],
        );
    }

    private function find(string $id): Packet
    {
        $packet = $this->packets->find($id);

        return $packet !== null && $packet->siteId === $this->account->get()->site->id->toRfc4122()
            ? $packet
            : throw $this->createNotFoundException();
    }

    private function view(FormInput $input, ?PageKey $after = null): Response
    {
        $site = $this->account->get()->site;

        return $this->page('reporting/packet/list.html.twig', $input, [
            'site' => $site,
            'page' => $this->packets->of($site, $after),
            'products' => $this->products->of($site),
            'papers' => self::PAPERS,
        ]);
    }
}
