<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;

/** The page of an invitation link: the person sets a password and is logged in. */
final class WelcomeController extends FormController
{
    public function __construct(private readonly People $people, private readonly Security $security)
    {
    }

    #[Route('/welcome/{secret}', name: 'welcome', requirements: ['secret' => '[\w-]{16,64}'], methods: ['GET', 'POST'])]
    public function welcome(string $secret, Request $request): Response
    {
        $person = $this->people->invitedBy($secret);
        if ($person === null) {
            return $this->render(
                'site/people/expired.html.twig',
                [],
                new Response(status: Response::HTTP_GONE, headers: ['Cache-Control' => 'no-store, private']),
            );
        }
        if (!$request->isMethod('POST')) {
            return $this->view($person, $this->blank());
        }
        $input = $this->read($request, 'welcome');
        $password = $input->typed->getString('password');
        if (!$input->isGood()) {
            return $this->view($person, $input);
        }
        try {
            $this->people->setPassword($person, $password);
        } catch (PeopleProblem $problem) {
            return $this->view($person, $this->refused($request, $problem));
        }
        $this->security->login($person, 'form_login', 'main');

        return $this->kept('people.welcome', 'board');
    }

    private function view(Account $person, FormInput $input): Response
    {
        $response = $this->page('site/people/welcome.html.twig', $input, [
            'person' => $person,
            'least' => CommonPasswords::LEAST,
        ]);
        $response->headers->set('Cache-Control', 'no-store, private');

        return $response;
    }
}
