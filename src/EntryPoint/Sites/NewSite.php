<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Sites;

use Doctrine\ORM\EntityManagerInterface;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Catalogue\Recipe\Recipe;
use Verjuicer\App\Catalogue\Recipe\Recipes;
use Verjuicer\App\Catalogue\Template\CookTemplate;
use Verjuicer\App\Catalogue\Template\CookTemplates;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\People\People;
use Verjuicer\App\Site\People\Role;
use Verjuicer\App\Site\Settings\SettingsForm;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Tenancy\Tenant;

/** A further site of an organisation. It begins with a copy of another site's catalogue. */
final readonly class NewSite
{
    public const COPIES = ['products', 'recipes', 'templates'];

    public function __construct(
        private EntityManagerInterface $entities,
        private Products $products,
        private Recipes $recipes,
        private CookTemplates $templates,
        private People $people,
        private SettingsForm $settings,
        private Tenant $tenant,
        private MeasureFormatter $figures,
    ) {
    }

    /** @return array<string, string> the form as it is filled in: as the site it is opened from */
    public function filled(Site $site): array
    {
        return [
            'timezone' => $site->timezone,
            'elevation_m' => $site->elevationM === null ? '' : $this->figures->elevation($site->elevationM),
            'rule_set' => $site->ruleSet,
        ]
            + SettingsForm::unitsOf($site)
            + array_fill_keys(array_map(static fn (string $what): string => 'copy_'.$what, self::COPIES), '1');
    }

    /** @return Account|null the owner there; null with problems in the input */
    public function open(FormInput $input, Account $by): ?Account
    {
        $from = $by->site;
        $organisation = $from->organisation;
        \assert($organisation !== null && $organisation->name !== ''); // read while it can be seen
        $site = $this->settings->begun($input, $organisation);
        if ($site === null) {
            return null;
        }
        $site->isPractice = $from->isPractice;
        $copies = [
            ...$input->isOn('copy_products') ? $this->products->of($from) : [],
            ...$input->isOn('copy_recipes') ? $this->recipes->of($from) : [],
            ...$input->isOn('copy_templates') ? $this->templates->of($from) : [],
        ];
        $owner = new Account($site, $by->person, $by->name, $by->initials, Role::Owner);
        $this->tenant->enter($site->id, $by->person->id);

        return $this->entities->wrapInTransaction(function () use ($site, $owner, $copies): Account {
            $this->entities->persist($site);
            foreach ($copies as $one) {
                \assert($one instanceof Product || $one instanceof Recipe || $one instanceof CookTemplate);
                $this->entities->persist($one->copiedTo($site));
            }
            $this->entities->flush();
            $this->people->letWork($owner, $owner);

            return $owner;
        });
    }
}
