<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Settings;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Site\AllergenList;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Ruleset\CookingRules;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/** How the site works: what a manager decides once. */
#[IsGranted('ROLE_MANAGER')]
#[Route('/site')]
final class SiteController extends FormController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly RuleSetLibrary $ruleSets,
        private readonly CurrentAccount $account,
    ) {
    }

    #[Route('', name: 'site', methods: ['GET'])]
    public function show(): Response
    {
        $site = $this->account->get()->site;

        return $this->view(
            $site,
            $this->blank([
                'allergens' => $site->allergenList->value,
                'advisory' => $site->hasAdvisory ? '1' : '',
                'susceptible' => $site->isSusceptible ? '1' : '',
                'keep_months' => (string) $site->keepMonths,
                'keep_basis' => $site->keepBasis,
            ]),
        );
    }

    #[Route('', name: 'site_keep', methods: ['POST'])]
    public function keep(Request $request): Response
    {
        $site = $this->account->get()->site;
        $input = $this->read($request, 'site');
        $list = $input->choice('allergens', AllergenList::class, true);
        $months = $input->whole('keep_months', 1, 240, true);
        if ($input->isOn('advisory') && $input->isOn('susceptible')) {
            $input->refuse('form', 'site.problem.susceptible');
        }
        if (!$input->isGood() || $list === null || $months === null) {
            return $this->view($site, $input);
        }
        $site->allergenList = $list;
        $site->hasAdvisory = $input->isOn('advisory');
        $site->isSusceptible = $input->isOn('susceptible');
        $site->keepMonths = $months;
        $site->keepBasis = $input->text('keep_basis');
        $this->entities->flush();

        return $this->kept('site.kept', 'kitchen');
    }

    private function view(Site $site, FormInput $input): Response
    {
        return $this->page('site/settings.html.twig', $input, [
            'site' => $site,
            'lists' => AllergenList::cases(),
            'cooking' => $this->ruleSets->get($site->ruleSet)->get(CookingRules::class),
        ]);
    }
}
