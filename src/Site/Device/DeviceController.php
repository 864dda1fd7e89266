<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Device;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\People\RequiresRecentPassword;

/** The shared tablets: a manager makes the one in hand one of them, or one of them none again. */
#[IsGranted('ROLE_MANAGER')]
#[Route('/devices')]
final class DeviceController extends FormController
{
    private const USUAL_MINUTES = '3';

    public function __construct(private readonly Devices $devices, private readonly CurrentAccount $account)
    {
    }

    #[Route('', name: 'devices', methods: ['GET'])]
    public function list(Request $request): Response
    {
        return $this->view($request, $this->blank(['quiet_minutes' => self::USUAL_MINUTES]));
    }

    #[Route('', name: 'device_register', methods: ['POST'])]
    #[RequiresRecentPassword]
    public function register(Request $request): Response
    {
        $input = $this->read($request, 'device');
        $name = $input->text('name', true, 60);
        $minutes = $input->whole('quiet_minutes', 1, 30, true);
        if (!$input->isGood() || $minutes === null) {
            return $this->view($request, $input);
        }
        $response = $this->kept('device.kept', 'devices');
        $response->headers->setCookie($this->devices->register($name, $minutes, $this->account->get()));

        return $response;
    }

    #[Route('/{id}/revoke', name: 'device_revoke', methods: ['POST'])]
    #[RequiresRecentPassword]
    public function revoke(string $id, Request $request): Response
    {
        $site = $this->account->get()->site;
        if (array_filter($this->devices->of($site), static fn (Device $one): bool => $one->id === $id) === []) {
            throw $this->createNotFoundException();
        }
        $input = $this->read($request, 'device');
        if (!$input->isGood()) {
            return $this->view($request, $input);
        }
        $this->devices->revoke($site, $id);

        return $this->kept('device.revoked', 'devices');
    }

    private function view(Request $request, FormInput $input): Response
    {
        $site = $this->account->get()->site;

        return $this->page('site/device/list.html.twig', $input, [
            'site' => $site,
            'devices' => $this->devices->of($site),
            'this_one' => $this->devices->ofRequest($request),
        ]);
    }
}
