<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use Symfony\Component\RateLimiter\RateLimiterFactoryInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Translation\LocaleSwitcher;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Wording\Language;

/** My account: password, sessions, theme and units of this screen. Inspectors have it, too. */
final class MyAccountController extends FormController
{
    public function __construct(
        private readonly People $people,
        private readonly SignIns $signIns,
        private readonly UserPasswordHasherInterface $hasher,
        private readonly Security $security,
        private readonly CurrentAccount $account,
        private readonly PeopleLog $log,
        private readonly LocaleSwitcher $locale,
        #[Autowire(service: 'limiter.login_name')] private readonly RateLimiterFactoryInterface $tries,
    ) {
    }

    #[Route('/me', name: 'own', methods: ['GET'])]
    public function show(): Response
    {
        return $this->view($this->blank());
    }

    #[Route('/me', name: 'own_password', methods: ['POST'])]
    #[DeniedToPin]
    public function password(Request $request): Response
    {
        $own = $this->account->get();
        $input = $this->read($request, 'own');
        if (!$input->isGood()) {
            return $this->view($input);
        }
        try {
            if (!$this->tries->create('again-'.$own->id->toRfc4122())->consume()->isAccepted()) {
                throw PeopleProblem::tooManyTries();
            }
            if (!$this->hasher->isPasswordValid($own, $input->typed->getString('current'))) {
                $this->log->note($own->siteId()->toRfc4122(), $own, 'password_failed');
                throw PeopleProblem::wrongPassword();
            }
            $this->people->setPassword($own, $input->typed->getString('password'));
        } catch (PeopleProblem $problem) {
            return $this->view($this->refused($request, $problem));
        }

        return $this->stay($own, 'own.password_kept');
    }

    #[Route('/me/sign-out', name: 'own_sign_out', methods: ['POST'])]
    #[DeniedToPin]
    public function signOutElsewhere(Request $request): Response
    {
        $own = $this->account->get();
        $input = $this->read($request, 'own');
        if (!$input->isGood()) {
            return $this->view($input);
        }
        $this->people->signOutEverywhere($own, $own);

        return $this->stay($own, 'own.signed_out');
    }

    #[Route('/me/pin', name: 'own_pin', methods: ['POST'])]
    #[RequiresRecentPassword]
    public function pin(Request $request): Response
    {
        $own = $this->account->get();
        $input = $this->read($request, 'own');
        $pin = $input->typed->getString('pin');
        if (preg_match('/^\d{4,8}$/D', $pin) !== 1 || \count(array_unique(str_split($pin))) < 2) {
            $input->refuse('pin', 'own.problem.pin');
        }
        if (!$input->isGood()) {
            return $this->view($input);
        }
        $this->people->setPin($own, $pin);

        return $this->kept('own.pin_kept', 'own');
    }

    #[Route('/me/language', name: 'own_language', methods: ['POST'])]
    public function language(Request $request): Response
    {
        $own = $this->account->get();
        $input = $this->read($request, 'own');
        $language = $input->choice('language', Language::class);
        if (!$input->isGood()) {
            return $this->view($input);
        }
        $this->people->setLanguage($own, $language);
        $this->locale->setLocale($language->value ?? $request->getLocale());

        return $this->kept('own.language_kept', 'own');
    }

    /** All sessions are over: this one starts again. */
    private function stay(Account $own, string $sentence): Response
    {
        $this->security->login($own, 'form_login', 'main');

        return $this->kept($sentence, 'own');
    }

    private function view(FormInput $input): Response
    {
        $own = $this->account->get();

        return $this->page('site/people/own.html.twig', $input, [
            'own' => $own,
            'site' => $own->site,
            'least' => CommonPasswords::LEAST,
            'sign_ins' => $this->signIns->of($own),
        ]);
    }
}
