<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Setup;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\RateLimiter\RateLimiterFactoryInterface;
use Symfony\Component\Routing\Attribute\Route;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Wording\ClockFace;
use Verjuicer\App\Platform\Wording\LengthUnit;
use Verjuicer\App\Platform\Wording\UnitSystem;
use Verjuicer\App\Platform\Wording\WeightUnit;
use Verjuicer\App\Site\People\CommonPasswords;
use Verjuicer\App\Site\People\PeopleProblem;
use Verjuicer\App\Site\Settings\SettingsForm;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/** Where a kitchen of one's own begins. It opens with the code of the console, and never again once a site exists. */
final class SetupController extends FormController
{
    public function __construct(
        private readonly SetupCode $code,
        private readonly Setup $setup,
        private readonly RuleSetLibrary $library,
        private readonly Security $security,
        #[Autowire(service: 'limiter.setup_code')] private readonly RateLimiterFactoryInterface $tries,
    ) {
    }

    #[Route('/setup', name: 'setup', methods: ['GET'])]
    public function show(): Response
    {
        if (!$this->code->isOpen()) {
            throw $this->createNotFoundException();
        }
        $products = array_merge(...array_values(Products::catalogue()));

        return $this->view(
            $this->blank([
                'timezone' => date_default_timezone_get(),
                'rule_set' => $this->library->ids()[0] ?? '',
            ]
                + SettingsForm::unitsOf(UnitSystem::UsCustomary)
                + array_fill_keys(array_map(Setup::field(...), $products), '1')),
        );
    }

    #[Route('/setup', name: 'setup_keep', methods: ['POST'])]
    public function keep(Request $request): Response
    {
        if (!$this->code->isOpen()) {
            throw $this->createNotFoundException();
        }
        $input = $this->read($request, 'setup');
        if (!$this->tries->create($request->getClientIp())->consume()->isAccepted()) {
            $input->refuse('code', 'setup.problem.tries');
        } elseif (!$this->code->isRight($input->typed->getString('code'))) {
            $input->refuse('code', 'setup.problem.code');
        }
        try {
            $manager = $this->setup->begin($input);
        } catch (PeopleProblem $problem) {
            return $this->view($this->refused($request, $problem));
        }
        if ($manager === null) {
            return $this->view($input);
        }
        $this->security->login($manager, 'form_login', 'main');

        return $this->kept('setup.kept', 'board');
    }

    private function view(FormInput $input): Response
    {
        return $this->page('entry_point/setup/setup.html.twig', $input, [
            'systems' => UnitSystem::cases(),
            'scales' => TemperatureUnit::cases(),
            'lengths' => LengthUnit::cases(),
            'weights' => WeightUnit::cases(),
            'clocks' => ClockFace::cases(),
            'zones' => \DateTimeZone::listIdentifiers(),
            'rule_sets' => array_map($this->library->get(...), $this->library->ids()),
            'catalogue' => array_map(
                static fn (array $names): array => array_combine(array_map(Setup::field(...), $names), $names),
                Products::catalogue(),
            ),
            'least' => CommonPasswords::LEAST,
        ]);
    }
}
