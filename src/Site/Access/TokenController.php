<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Access;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\People\RequiresRecentPassword;

/** The secrets by which programs read a site. */
#[IsGranted('ROLE_MANAGER')]
#[Route('/tokens')]
final class TokenController extends FormController
{
    public function __construct(private readonly AccessTokens $tokens, private readonly CurrentAccount $account)
    {
    }

    #[Route('', name: 'tokens', methods: ['GET'])]
    public function list(): Response
    {
        return $this->view($this->blank());
    }

    #[RequiresRecentPassword]
    #[Route('', name: 'token_make', methods: ['POST'])]
    public function make(Request $request): Response
    {
        $input = $this->read($request, 'token');
        $name = $input->text('name', true, 60);
        if (!$input->isGood()) {
            return $this->view($input);
        }

        return $this->view($this->blank(), $this->tokens->make($name, $this->account->get()));
    }

    #[RequiresRecentPassword]
    #[Route('/{id}/revoke', name: 'token_revoke', requirements: ['id' => Requirement::UUID], methods: ['POST'])]
    public function revoke(string $id, Request $request): Response
    {
        $site = $this->account->get()->site;
        $its = array_filter($this->tokens->reading($site), static fn (AccessToken $one): bool => $one->id === $id);
        if ($its === []) {
            throw $this->createNotFoundException();
        }
        $input = $this->read($request, 'token');
        if (!$input->isGood()) {
            return $this->view($input);
        }
        $this->tokens->revoke($site, $id);

        return $this->kept('token.revoked', 'tokens');
    }

    private function view(FormInput $input, ?string $secret = null): Response
    {
        $site = $this->account->get()->site;

        return $this->page('site/access/list.html.twig', $input, [
            'site' => $site,
            'tokens' => $this->tokens->reading($site),
            'secret' => $secret,
        ]);
    }
}
