<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Setup;

use Doctrine\ORM\EntityManagerInterface;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\People\People;
use Verjuicer\App\Site\People\PeopleProblem;
use Verjuicer\App\Site\People\Person;
use Verjuicer\App\Site\People\PersonForm;
use Verjuicer\App\Site\People\Role;
use Verjuicer\App\Site\Settings\SettingsForm;
use Verjuicer\App\Site\Tenancy\Tenant;

/** A site with its products and its first manager, all at once or not at all. */
final readonly class Setup
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Products $products,
        private People $people,
        private SettingsForm $settings,
        private SetupCode $code,
        private Tenant $tenant,
    ) {
    }

    /** The name of the field of a product of the catalogue. */
    public static function field(string $product): string
    {
        return 'product_'.substr(hash('xxh64', $product), 0, 12);
    }

    /**
     * @return Account|null the first manager; null with problems in the input
     *
     * @throws PeopleProblem about the password or the login
     */
    public function begin(FormInput $input): ?Account
    {
        $site = $this->settings->begun($input);
        $person = PersonForm::read($input, 'manager_');
        $password = $input->typed->getString('password');
        if (!$input->isGood() || $site === null || $person === null) {
            return null;
        }
        $manager = new Account($site, new Person($person['login']), $person['name'], $person['initials'], Role::Owner);

        $this->tenant->enter($site->id, $manager->person->id);

        return $this->entities->wrapInTransaction(function () use ($site, $manager, $password, $input): Account {
            $this->entities->persist($site);
            $this->products->addCatalogue($site, self::chosen($input));
            $this->entities->flush();
            $this->people->add($manager, $manager);
            $this->people->setPassword($manager, $password);
            $this->code->forget();

            return $manager;
        });
    }

    /** @return list<string> */
    private static function chosen(FormInput $input): array
    {
        return array_values(
            array_filter(
                array_merge(...array_values(Products::catalogue())),
                static fn (string $name): bool => $input->isOn(self::field($name)),
            ),
        );
    }
}
