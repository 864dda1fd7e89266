<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\RateLimiter\RateLimiterFactoryInterface;
use Symfony\Component\Routing\Attribute\Route;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Picture\QrCode;

/** One's second factor: turned on and off with a code of the authenticator and the password again. */
#[Route('/me/factor')]
final class FactorController extends FormController
{
    private const SECRET = 'factor_secret';

    public function __construct(
        private readonly SecondFactor $factor,
        private readonly People $people,
        private readonly CurrentAccount $account,
        #[Autowire(service: 'limiter.login_name')] private readonly RateLimiterFactoryInterface $tries,
    ) {
    }

    #[Route('', name: 'factor', methods: ['GET'])]
    public function show(Request $request): Response
    {
        return $this->view($request, $this->blank());
    }

    #[Route('', name: 'factor_on', methods: ['POST'])]
    #[RequiresRecentPassword]
    public function turnOn(Request $request): Response
    {
        $own = $this->account->get();
        $input = $this->read($request, 'factor');
        $code = $input->text('code', true);
        if (!$input->isGood()) {
            return $this->view($request, $input);
        }
        $recovery = $this->factor->turnOn($own, $this->secret($request), $code);
        if ($recovery === null) {
            $input->refuse('code', 'factor.problem.code');

            return $this->view($request, $input);
        }
        $request->getSession()->remove(self::SECRET);

        return $this->render('site/people/recovery.html.twig', ['codes' => $recovery]);
    }

    #[Route('/off', name: 'factor_off', methods: ['POST'])]
    #[RequiresRecentPassword]
    public function turnOff(Request $request): Response
    {
        $own = $this->account->get();
        $input = $this->read($request, 'factor');
        $code = $input->text('code', true);
        $tries = $this->tries->create('factor-'.$own->person->id->toRfc4122());
        if ($input->isGood() && !$tries->consume()->isAccepted()) {
            $input->refuse('code', 'factor.problem.tries');
        }
        if ($input->isGood() && !$this->factor->accepts($own, $code)) {
            $input->refuse('code', 'factor.problem.code');
        }
        if (!$input->isGood()) {
            return $this->view($request, $input);
        }
        $this->people->setFactor($own, null, 0, []);

        return $this->kept('factor.off', 'own');
    }

    private function view(Request $request, FormInput $input): Response
    {
        $own = $this->account->get();
        $secret = $own->person->factorSecret === null ? $this->secret($request) : null;
        $response = $this->page('site/people/factor.html.twig', $input, [
            'own' => $own,
            'secret' => $secret === null ? null : implode(' ', str_split($secret, 4)),
            'qr' => $secret === null ? null : QrCode::of(SecondFactor::address($own, $secret)),
        ]);
        $response->headers->set('Cache-Control', 'no-store, private');

        return $response;
    }

    /** The same until it is turned on: a slip in the code asks for no new picture. */
    private function secret(Request $request): string
    {
        $session = $request->getSession();
        $secret = $session->get(self::SECRET);
        if (!\is_string($secret)) {
            $session->set(self::SECRET, $secret = SecondFactor::newSecret());
        }

        return $secret;
    }
}
