<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Food;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Food\NamedCut;

final class NamedCutTest extends TestCase
{
    #[DataProvider('names')]
    public function testIsReadFromANameInEitherLanguage(NamedCut $cut, bool $isMarbled, string ...$names): void
    {
        foreach ($names as $name) {
            self::assertSame($cut, NamedCut::of($name), $name);
        }
        self::assertSame($isMarbled, $cut->isMarbled());
        self::assertSame(\in_array($cut, [NamedCut::BeefRibs, NamedCut::Ribs], true), $cut->isRibs());
    }

    /** @return iterable<array{NamedCut, bool, 2?: string, 3?: string, 4?: string, 5?: string}> */
    public static function names(): iterable
    {
        yield [NamedCut::BeefRibs, true, 'Beef ribs', 'Short rib', 'Costillas de res', 'Costilla corta de res'];
        yield [NamedCut::Ribs, true, 'Pork ribs', 'Lamb RIBS', 'Costillas de cerdo', 'Costillas de cordero'];
        yield [NamedCut::Brisket, true, 'Beef brisket flat', 'Brisket (pecho de res)', 'Pecho de res'];
        yield [NamedCut::Belly, true, 'Pork belly, slab', 'Panza de cerdo, pieza'];
        yield [NamedCut::Sausage, true, 'House sausage', 'Salchicha de la casa', 'Salchichón ahumado'];
        yield [NamedCut::Marbled, true, 'Lamb shoulder', 'Espaldilla de cerdo', 'Paleta de cordero', 'Cachete de res'];
        yield [NamedCut::Flat, false, 'The flat', 'Plano'];
        yield [NamedCut::Other, false, 'Turkey breast', 'Pechuga de pavo', 'Costillar', ''];
    }
}
