<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Verjuicer\App\Site\Access\TokenHolder;
use Verjuicer\Core\Json\DocumentProblem;

/** Where sensors send what they read, over HTTP. */
final class ReadingsController extends AbstractController
{
    /** Bytes: a thousand readings are a tenth of it. */
    private const LONGEST = 1_000_000;

    #[Route('/api/v1/readings', name: 'api_readings', methods: ['POST'])]
    public function take(Request $request, #[CurrentUser] TokenHolder $holder, SensorMessages $messages): Response
    {
        if ($request->getContentTypeFormat() !== 'json') {
            return new JsonResponse(
                ['errors' => [['pointer' => '', 'message' => 'Send "Content-Type: application/json".']]],
                Response::HTTP_UNSUPPORTED_MEDIA_TYPE,
            );
        }
        $body = $request->getContent();
        if (\strlen($body) > self::LONGEST) {
            return new JsonResponse(
                ['errors' => [['pointer' => '', 'message' => 'is longer than a request may be: send less at once']]],
                Response::HTTP_REQUEST_ENTITY_TOO_LARGE,
            );
        }
        $answers = $messages->take($holder->token, $body, 'http');
        if (\is_array($answers)) {
            return new JsonResponse(
                ['errors' => array_map(
                    static fn (DocumentProblem $one): array => ['pointer' => $one->pointer, 'message' => $one->message],
                    $answers,
                )],
                Response::HTTP_UNPROCESSABLE_ENTITY,
            );
        }

        return new JsonResponse(
            $answers->toArray(),
            $answers->isAllRefused() ? Response::HTTP_UNPROCESSABLE_ENTITY : Response::HTTP_OK,
        );
    }
}
