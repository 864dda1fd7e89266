<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Sites;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Wording\ClockFace;
use Verjuicer\App\Platform\Wording\LengthUnit;
use Verjuicer\App\Platform\Wording\UnitSystem;
use Verjuicer\App\Platform\Wording\WeightUnit;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\People\DeniedToPin;
use Verjuicer\App\Site\People\People;
use Verjuicer\App\Site\People\PeopleProblem;
use Verjuicer\App\Site\People\PersonForm;
use Verjuicer\App\Site\People\RequiresRecentPassword;
use Verjuicer\App\Site\People\Role;
use Verjuicer\App\Site\People\SiteSwitch;
use Verjuicer\App\Site\Tenancy\Tenant;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/** The person's sites; for an owner also their state, adding a site, and staff of several sites. */
#[Route('/sites')]
final class SitesController extends FormController
{
    public function __construct(
        private readonly SiteStandings $standings,
        private readonly SiteSwitch $switch,
        private readonly NewSite $newSite,
        private readonly People $people,
        private readonly Tenant $tenant,
        private readonly RuleSetLibrary $library,
        private readonly CurrentAccount $account,
    ) {
    }

    #[Route('', name: 'sites', methods: ['GET'])]
    public function list(): Response
    {
        return $this->view($this->blank(['role' => Role::Crew->value]));
    }

    #[Route('/{id}/enter', name: 'site_enter', methods: ['POST'])]
    #[DeniedToPin]
    public function enter(string $id, Request $request): Response
    {
        $there = $this->elsewhere($id);
        $input = $this->read($request, 'sites');
        if (!$input->isGood()) {
            return $this->view($input);
        }
        $this->switch->to($there);

        return $this->redirectToRoute('board', status: Response::HTTP_SEE_OTHER);
    }

    #[Route('/new', name: 'site_new', methods: ['GET'])]
    #[IsGranted('ROLE_OWNER')]
    public function new(): Response
    {
        return $this->form($this->blank($this->newSite->filled($this->account->get()->site)));
    }

    #[Route('/new', name: 'site_open', methods: ['POST'])]
    #[IsGranted('ROLE_OWNER')]
    #[RequiresRecentPassword]
    public function open(Request $request): Response
    {
        $input = $this->read($request, 'sites');
        $owner = $input->isGood() ? $this->newSite->open($input, $this->account->get()) : null;
        if ($owner === null) {
            return $this->form($input);
        }
        $this->switch->to($owner);

        return $this->kept('sites.opened', 'board');
    }

    /** A person of the owner's present site starts to work in another, too. */
    #[Route('/people', name: 'site_people', methods: ['POST'])]
    #[IsGranted('ROLE_OWNER')]
    #[RequiresRecentPassword]
    public function people(Request $request): Response
    {
        $by = $this->account->get();
        $input = $this->read($request, 'sites');
        $person = $this->people->find($by->site, $input->typed->getString('person'));
        $role = $input->choice('role', Role::class, true);
        $initials = PersonForm::initials($input, 'initials');
        if ($person === null) {
            $input->refuse('person', 'form.problem.choice');
        }
        if (!$input->isGood() || $person === null || $role === null) {
            return $this->view($input);
        }
        $there = $this->elsewhere($input->typed->getString('site'));
        if ($there->role !== Role::Owner) {
            throw $this->createAccessDeniedException();
        }
        try {
            $this->tenant->within($there->siteId(), function () use ($there, $person, $initials, $role): void {
                $account = new Account($there->site, $person->person, $person->name, $initials, $role);
                $this->people->letWork($account, $there);
            });
        } catch (PeopleProblem $problem) {
            return $this->view($this->refused($request, $problem));
        }

        return $this->kept('people.kept', 'sites');
    }

    private function elsewhere(string $id): Account
    {
        foreach ($this->account->get()->elsewhere as $account) {
            if ($account->id->toRfc4122() === $id) {
                return $account;
            }
        }

        throw $this->createNotFoundException();
    }

    private function view(FormInput $input): Response
    {
        $own = $this->account->get();
        $owned = array_values(
            array_filter($own->elsewhere, static fn (Account $one): bool => $one->role === Role::Owner),
        );

        return $this->page('entry_point/sites/list.html.twig', $input, [
            'own' => $own,
            'standings' => $this->standings->of([$own, ...$own->elsewhere]),
            'elsewhere' => array_filter($own->elsewhere, static fn (Account $one): bool => $one->role !== Role::Owner),
            'may_let' => $own->role === Role::Owner && $owned !== [],
            'others' => array_column(
                array_map(static fn (Account $one): array => [$one->id->toRfc4122(), $one->site->name], $owned),
                1,
                0,
            ),
            'people' => $own->role === Role::Owner ? $this->names($own) : [],
            'roles' => $own->role->gives(),
        ]);
    }

    /** @return array<string, string> who works in the site the owner is in, by id */
    private function names(Account $own): array
    {
        $names = [];
        foreach ($this->people->of($own->site) as $one) {
            if (!$one->isDisabled() && $one !== $own) {
                $names[$one->id->toRfc4122()] = $one->name;
            }
        }

        return $names;
    }

    private function form(FormInput $input): Response
    {
        return $this->page('entry_point/sites/new.html.twig', $input, [
            'from' => $this->account->get()->site,
            'systems' => UnitSystem::cases(),
            'scales' => TemperatureUnit::cases(),
            'lengths' => LengthUnit::cases(),
            'weights' => WeightUnit::cases(),
            'clocks' => ClockFace::cases(),
            'zones' => \DateTimeZone::listIdentifiers(),
            'rule_sets' => array_map($this->library->get(...), $this->library->ids()),
            'copies' => NewSite::COPIES,
        ]);
    }
}
