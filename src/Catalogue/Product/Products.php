<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Product;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;

/** The products of a site. */
final readonly class Products
{
    public function __construct(
        private EntityManagerInterface $entities,
        private TranslatorInterface $translator,
    ) {
    }

    /** @return list<Product> those still smoked, by name */
    public function of(Site $site): array
    {
        return $this->entities
            ->getRepository(Product::class)
            ->findBy(['site' => $site, 'isRetired' => false], ['name' => 'ASC']);
    }

    public function find(Site $site, string $id): ?Product
    {
        $product = Uuid::isValid($id) ? $this->entities->find(Product::class, Uuid::fromString($id)) : null;

        return $product !== null && $product->site->id->equals($site->id) ? $product : null;
    }

    /**
     * A batch's product as the site's list has it today: for hints and forecasts only; the batch keeps the facts that
     * rules need.
     */
    public function named(Site $site, string $name): ?Product
    {
        return $this->entities->getRepository(Product::class)->findOneBy(['site' => $site, 'name' => $name]);
    }

    /** @return array<string, list<string>> names of the catalogue by animal */
    public static function catalogue(): array
    {
        $names = [];
        foreach (ProductCatalogue::PRODUCTS as [$name, $animal]) {
            $names[$animal->value][] = $name;
        }

        return $names;
    }

    /**
     * @param list<string>|null $only English names; all of it where nothing is chosen
     *
     * @return array<string, Product> the catalogue in the reader's language, given to a new site, by English name
     */
    public function addCatalogue(Site $site, ?array $only = null): array
    {
        $products = [];
        foreach (
            ProductCatalogue::PRODUCTS as [$name, $animal, $form, $integrity, $grams, $spots, $doneness, $wrap, $rest]
        ) {
            if ($only !== null && !\in_array($name, $only, true)) {
                continue;
            }
            $product = new Product(
                $site,
                $this->said($name),
                $animal,
                $form,
                $integrity,
                $grams,
                array_map(fn (array $spot): array => [
                    'name' => $this->said($spot[0]),
                    'where' => $this->said($spot[1]),
                ], $spots),
            );
            $product->liked(
                new Doneness(
                    Temperature::ofTenths(10 * $doneness[0], TemperatureUnit::Fahrenheit),
                    Temperature::ofTenths(10 * $doneness[1], TemperatureUnit::Fahrenheit),
                    $this->said($doneness[2]),
                ),
            );
            $product->wrap = self::inUnit($this->said($wrap), $site->unit);
            $product->rest = $this->said($rest);
            $this->entities->persist($products[$name] = $product);
        }

        return $products;
    }

    private function said(string $text): string
    {
        return $this->translator->trans($text, domain: 'catalogue');
    }

    /** A text of the catalogue with its degrees in the unit of the kitchen. */
    private static function inUnit(string $text, TemperatureUnit $unit): string
    {
        return $unit === TemperatureUnit::Fahrenheit ? $text : (string) preg_replace_callback(
            '/(\d+) °F/u',
            static fn (array $found): string => Temperature::fahrenheit($found[1])->goalInOtherUnit()->number().' °C',
            $text,
        );
    }
}
