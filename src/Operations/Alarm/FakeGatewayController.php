<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\People\CurrentAccount;

/** The stand-in for a gateway of text messages and calls. */
final class FakeGatewayController extends AbstractController
{
    public function __construct(private readonly FakeGateway $standIn)
    {
    }

    /** As a gateway is spoken to: JSON with id, channel, to, words, site. */
    #[Route('/stand-in', name: 'stand_in_take', methods: ['POST'])]
    public function take(Request $request): Response
    {
        $key = str_replace('Bearer ', '', $request->headers->get('Authorization') ?? '');
        $given = json_decode($request->getContent(), true);
        if (!$this->standIn->isLetIn($key)) {
            return new JsonResponse(null, Response::HTTP_UNAUTHORIZED, ['WWW-Authenticate' => 'Bearer']);
        }
        $all = \is_array($given) ? $given : [];
        $text = static fn (string $name): string => \is_string($all[$name] ?? null) ? $all[$name] : '';
        if (!Uuid::isValid($text('id')) || !Uuid::isValid($text('site'))) {
            return new JsonResponse(null, Response::HTTP_UNPROCESSABLE_ENTITY);
        }
        $this->standIn->take(
            Uuid::fromString($text('id')),
            Uuid::fromString($text('site')),
            $text('channel') === AlarmChannel::Call->value ? 'call' : 'text',
            mb_substr($text('to'), 0, 100),
            mb_substr($text('words'), 0, 1000),
        );

        return new JsonResponse(null, Response::HTTP_ACCEPTED);
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('/stand-in', name: 'stand_in', methods: ['GET'])]
    public function show(CurrentAccount $account): Response
    {
        $site = $account->get()->site;

        return $this->render('operations/alarm/stand_in.html.twig', [
            'site' => $site,
            'messages' => $this->standIn->messages($site),
        ]);
    }
}
