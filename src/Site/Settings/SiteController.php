<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Settings;

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
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\People\RequiresRecentPassword;
use Verjuicer\App\Site\Site\AllergenList;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Ruleset\CookingRules;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/** Site settings: a manager's decisions, and earlier ones. */
#[IsGranted('ROLE_MANAGER')]
#[Route('/site')]
final class SiteController extends FormController
{
    private const MOST_CHANGES = 50;

    public function __construct(
        private readonly Settings $settings,
        private readonly SettingsForm $form,
        private readonly SiteRules $rules,
        private readonly RuleSetLibrary $library,
        private readonly CurrentAccount $account,
    ) {
    }

    #[Route('', name: 'site', methods: ['GET'])]
    public function show(): Response
    {
        $site = $this->account->get()->site;

        return $this->view($site, $this->blank($this->form->filled($site)));
    }

    #[Route('', name: 'site_keep', methods: ['POST'])]
    #[RequiresRecentPassword]
    public function keep(Request $request): Response
    {
        $by = $this->account->get();
        $input = $this->read($request, 'site');
        $asked = $this->form->read($input, $by->site);
        if ($asked === null) {
            return $this->view($by->site, $input);
        }
        $isChanged = $this->settings->change($by, $asked->values, $asked->rulesFrom, $asked->reason);

        return $this->kept($isChanged ? 'site.kept' : 'site.same', 'site');
    }

    private function view(Site $site, FormInput $input): Response
    {
        return $this->page('site/settings.html.twig', $input, [
            'site' => $site,
            'lists' => AllergenList::cases(),
            'systems' => UnitSystem::cases(),
            'scales' => TemperatureUnit::cases(),
            'lengths' => LengthUnit::cases(),
            'weights' => WeightUnit::cases(),
            'clocks' => ClockFace::cases(),
            'zones' => \DateTimeZone::listIdentifiers(),
            'rule_sets' => array_map($this->library->get(...), $this->library->ids()),
            'in_force' => $this->rules->of($site),
            'usual' => $this->rules->usual($site)->adjustable(),
            'cooking' => $this->rules->of($site)->get(CookingRules::class),
            'changes' => $this->settings->of($site, self::MOST_CHANGES),
        ]);
    }
}
