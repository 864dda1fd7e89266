<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Form;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\InputBag;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Uid\Uuid;

/** A page with a form that comes back whole, with what is wrong beside each field, until it can be kept. */
abstract class FormController extends AbstractController
{
    protected function read(Request $request, string $token): FormInput
    {
        $input = new FormInput($request->request);
        if (!$this->isCsrfTokenValid($token, $request->request->getString('_token'))) {
            $input->refuse('form', 'entry.problem.expired');
        }

        return $input;
    }

    /** @param array<string, string> $filled */
    protected function blank(array $filled = []): FormInput
    {
        /** @var InputBag<string> $typed */
        $typed = new InputBag($filled + ['id' => Uuid::v7()->toRfc4122()]);

        return new FormInput($typed);
    }

    /** @param array<string, mixed> $context */
    protected function page(string $template, FormInput $input, array $context): Response
    {
        return $this->render($template, ['form' => $input->typed, 'problems' => $input->problems] + $context, new Response(status: $input->isGood() ? Response::HTTP_OK : Response::HTTP_UNPROCESSABLE_ENTITY));
    }

    /** @param array<string, string> $parameters */
    protected function kept(string $sentence, string $route, array $parameters = []): Response
    {
        $this->addFlash('done', $sentence);

        return $this->redirectToRoute($route, $parameters, Response::HTTP_SEE_OTHER);
    }
}
