<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Page\ConfiguredAddress;
use Verjuicer\App\Platform\Paging\PageKey;

/** Who works here: added, invited, disabled, signed out by a manager. */
#[IsGranted('ROLE_MANAGER')]
#[Route('/people')]
final class PeopleController extends FormController
{
    private const MOST_CHANGES = 30;

    public function __construct(
        private readonly People $people,
        private readonly SignIns $signIns,
        private readonly PeopleLog $log,
        private readonly ConfiguredAddress $address,
        private readonly CurrentAccount $account,
    ) {
    }

    #[Route('', name: 'people', methods: ['GET'])]
    public function list(): Response
    {
        return $this->view($this->blank(['role' => Role::Crew->value]));
    }

    #[Route('', name: 'people_add', methods: ['POST'])]
    #[RequiresRecentPassword]
    public function add(Request $request): Response
    {
        $by = $this->account->get();
        $input = $this->read($request, 'people');
        $role = $input->choice('role', Role::class, true);
        $asked = PersonForm::read($input);
        if ($asked === null || $role === null) {
            return $this->view($input);
        }
        $person = new Account($by->site, new Person($asked['login']), $asked['name'], $asked['initials'], $role);
        $person->languages = $asked['languages'];
        try {
            $secret = $this->people->add($person, $by);
        } catch (PeopleProblem $problem) {
            return $this->view($this->refused($request, $problem));
        }

        return $this->handedOver($secret, $person->name);
    }

    #[Route('/log', name: 'people_log', methods: ['GET'], priority: 1)]
    public function log(Request $request): Response
    {
        $site = $this->account->get()->site;

        return $this->render('site/people/log.html.twig', [
            'site' => $site,
            'page' => $this->log->of($site, PageKey::parse($request->query->getString('after'))),
        ]);
    }

    #[Route('/{id}', name: 'person', methods: ['GET'])]
    public function show(string $id): Response
    {
        $person = $this->person($id);

        return $this->one($person, $this->blank([
            'name' => $person->name,
            'role' => $person->role->value,
            'languages' => $person->languages,
        ]));
    }

    #[Route('/{id}', name: 'person_keep', methods: ['POST'])]
    #[RequiresRecentPassword]
    public function keep(string $id, Request $request): Response
    {
        $person = $this->person($id);
        $input = $this->read($request, 'people');
        $name = $input->text('name', true, 60);
        $role = $input->choice('role', Role::class, true);
        $languages = $input->text('languages', false, 60);
        if (!$input->isGood() || $role === null) {
            return $this->one($person, $input);
        }

        return $this->done($person, $request, function (Account $by) use ($person, $name, $role, $languages): ?string {
            $this->people->change($person, $name, $role, $languages, $by);

            return null;
        });
    }

    #[Route(
        '/{id}/{what}',
        name: 'person_do',
        requirements: ['what' => 'invite|disable|enable|sign-out'],
        methods: ['POST'],
    )]
    #[RequiresRecentPassword]
    public function do(string $id, string $what, Request $request): Response
    {
        $person = $this->person($id);
        $input = $this->read($request, 'people');
        if (!$input->isGood()) {
            return $this->one($person, $input);
        }

        return $this->done($person, $request, function (Account $by) use ($person, $what): ?string {
            if ($what === 'invite') {
                return $this->people->invite($person, $by);
            }
            if ($what === 'enable') {
                return $this->people->enable($person, $by);
            }
            $what === 'disable'
                ? $this->people->disable($person, $by)
                : $this->people->signOutEverywhere($person, $by);

            return null;
        });
    }

    /** @param \Closure(Account): ?string $do gives the secret of a link, if it made one */
    private function done(Account $person, Request $request, \Closure $do): Response
    {
        try {
            $secret = $do($this->account->get());
        } catch (PeopleProblem $problem) {
            return $this->one($person, $this->refused($request, $problem));
        }

        return $secret === null
            ? $this->kept('people.kept', 'person', ['id' => $person->id->toRfc4122()])
            : $this->handedOver($secret, $person->name);
    }

    /** The link is shown once, to be handed over: only its digest is kept. */
    private function handedOver(string $secret, string $name): Response
    {
        $link = $this->address->of('welcome', ['secret' => $secret]);

        return $this->render('site/people/link.html.twig', ['link' => $link, 'name' => $name]);
    }

    private function person(string $id): Account
    {
        return $this->people->find($this->account->get()->site, $id) ?? throw $this->createNotFoundException();
    }

    private function view(FormInput $input): Response
    {
        $site = $this->account->get()->site;

        return $this->page('site/people/list.html.twig', $input, [
            'site' => $site,
            'people' => $this->people->of($site),
            'roles' => $this->account->get()->role->gives(),
            'changes' => $this->people->changes($site, self::MOST_CHANGES),
        ]);
    }

    private function one(Account $person, FormInput $input): Response
    {
        return $this->page('site/people/person.html.twig', $input, [
            'site' => $person->site,
            'person' => $person,
            'may_change' => \in_array($person->role, $this->account->get()->role->gives(), true),
            'roles' => $this->account->get()->role->gives(),
            'sign_ins' => $this->signIns->of($person),
        ]);
    }
}
