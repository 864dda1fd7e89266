<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Form;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Problem\Problem;

/** A page whose form keeps all input, with the problem at each field, until it is saved. */
abstract class FormController extends AbstractController
{
    protected function read(Request $request, string $token): FormInput
    {
        $input = FormInput::of($request);
        if (!$this->isCsrfTokenValid($token, $input->typed->getString('_token'))) {
            $input->refuse('form', 'entry.problem.expired');
        }

        return $input;
    }

    /**
     * The submitted form with its problems.
     *
     * @param list<string> $asked fields that the form shows only once they are asked for
     */
    protected function refused(Request $request, Problem $problem, array $asked = []): FormInput
    {
        $input = FormInput::of($request);
        $isShown = $input->typed->has($problem->field) || \in_array($problem->field, $asked, true);
        $field = $isShown ? $problem->field : 'form';
        $input->refuse($field, $problem->key, $problem->values);

        return $input;
    }

    /** @param array<string, string> $filled */
    protected function blank(array $filled = []): FormInput
    {
        return FormInput::filled($filled + ['id' => Uuid::v7()->toRfc4122()]);
    }

    /** @param array<string, mixed> $context */
    protected function page(string $template, FormInput $input, array $context): Response
    {
        $status = $input->isGood() ? Response::HTTP_OK : Response::HTTP_UNPROCESSABLE_ENTITY;
        $form = ['form' => $input->typed, 'problems' => $input->problems];

        return $this->render($template, $form + $context, new Response(status: $status));
    }

    /** @param array<string, string> $parameters */
    protected function kept(string $sentence, string $route, array $parameters = []): Response
    {
        $this->addFlash('done', $sentence);

        return $this->redirectToRoute($route, $parameters, Response::HTTP_SEE_OTHER);
    }
}
