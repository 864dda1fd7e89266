<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Device;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\PasswordHasher\Hasher\PasswordHasherFactoryInterface;
use Symfony\Component\RateLimiter\RateLimiterFactoryInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Util\TargetPathTrait;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Page\BackPath;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\People\People;
use Verjuicer\App\Site\People\PeopleLog;
use Verjuicer\App\Site\People\RecentPasswordListener;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Tenancy\Tenant;

/** Person selection on a shared tablet: names as big keys, then a PIN. Typed input is still there afterwards. */
final class WhoController extends FormController
{
    use TargetPathTrait;

    public function __construct(
        private readonly Devices $devices,
        private readonly People $people,
        private readonly EntityManagerInterface $entities,
        private readonly PasswordHasherFactoryInterface $hashers,
        private readonly Security $security,
        private readonly Tenant $tenant,
        private readonly PeopleLog $log,
        #[Autowire(service: 'limiter.pin')] private readonly RateLimiterFactoryInterface $tries,
        #[Autowire(service: 'limiter.pin_device')] private readonly RateLimiterFactoryInterface $deviceTries,
    ) {
    }

    #[Route('/who', name: 'who', methods: ['GET'])]
    public function ask(Request $request): Response
    {
        $device = $this->devices->ofRequest($request);
        if ($device === null) {
            return $this->redirectToRoute('login');
        }
        // Logs out the previous person: no further entry is saved in their name.
        if ($this->getUser() !== null) {
            $this->security->logout(false);
        }
        $this->tenant->enter(Uuid::fromString($device->siteId));

        return $this->view($device, $this->blank(['back' => BackPath::of($request->query->getString('back')) ?? '/']));
    }

    #[Route('/who', name: 'who_is', methods: ['POST'])]
    public function is(Request $request): Response
    {
        $device = $this->devices->ofRequest($request);
        if ($device === null) {
            return $this->redirectToRoute('login');
        }
        $this->tenant->enter(Uuid::fromString($device->siteId));
        $input = $this->read($request, 'who');
        $person = Uuid::isValid($input->typed->getString('person'))
            ? $this->entities->find(Account::class, Uuid::fromString($input->typed->getString('person')))
            : null;
        if ($person === null || $person->site->id->toRfc4122() !== $device->siteId || $person->isDisabled()) {
            $input->refuse('form', 'who.problem.person');
        } elseif (!$this->mayTry($device, $person)) {
            $input->refuse('pin', 'who.problem.tries');
        } elseif (!$this->isRight($person, $input->typed->getString('pin'))) {
            $input->refuse('pin', 'who.problem.pin');
        }
        if ($person === null || !$input->isGood()) {
            if ($person?->siteId()->toRfc4122() === $device->siteId) {
                $this->log->note($device->siteId, $person, 'pin_failed', $device->name);
            }

            return $this->view($device, $input);
        }
        $this->security->login($person, 'form_login', 'main');
        $token = $this->security->getToken();
        $token?->setAttribute(RecentPasswordListener::BY_PIN, $device->id);
        $token?->setAttribute(RecentPasswordListener::CONFIRMED_AT, 0);
        $this->log->note($device->siteId, $person, 'pin', $device->name);
        $back = BackPath::of($input->typed->getString('back')) ?? '/';
        // Input sent after the session ended waits there.
        $waiting = $this->getTargetPath($request->getSession(), 'main');

        return $this->redirect($back === '/' ? $waiting ?? $back : $back, Response::HTTP_SEE_OTHER);
    }

    private function mayTry(Device $device, Account $person): bool
    {
        return $this->deviceTries->create($device->id)->consume()->isAccepted()
            && $this->tries->create($person->id->toRfc4122())->consume()->isAccepted();
    }

    /** A person without a PIN takes as long to refuse. */
    private function isRight(Account $person, string $pin): bool
    {
        $hasher = $this->hashers->getPasswordHasher(Account::class);
        if ($person->pinHash === null) {
            $hasher->hash('as long as a real one');

            return false;
        }

        return $hasher->verify($person->pinHash, $pin);
    }

    private function view(Device $device, FormInput $input): Response
    {
        $site = $this->entities->find(Site::class, Uuid::fromString($device->siteId));
        \assert($site !== null, 'a device is of a site');
        $response = $this->page('site/device/who.html.twig', $input, [
            'device' => $device,
            'site' => $site,
            'people' => array_filter(
                $this->people->of($site),
                static fn (Account $one): bool => !$one->isDisabled() && $one->pinHash !== null,
            ),
        ]);
        $response->headers->set('Cache-Control', 'no-store, private');

        return $response;
    }
}
