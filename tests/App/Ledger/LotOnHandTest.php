<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Ledger;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Supplier\Supplier;
use Verjuicer\App\Ledger\Log\SiteEvent;
use Verjuicer\App\Ledger\Lot\Lot;
use Verjuicer\App\Ledger\Lot\LotOnHand;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\People\Person;
use Verjuicer\App\Site\People\Role;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Food\Animal;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\Integrity;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\TemperatureUnit;

/** Which date of a lot still says by when it is to be used. */
final class LotOnHandTest extends TestCase
{
    /** @param list<string> $moves */
    #[DataProvider('lots')]
    public function testAUseByDateThatNoLongerCountsIsNotShown(
        bool $isFrozen,
        bool $isAccepted,
        array $moves,
        ?string $useBy,
    ): void {
        $site = new Site('Quarry Lane', 'America/Denver', TemperatureUnit::Fahrenheit, null, 'us-food-code-2022');
        $at = new \DateTimeImmutable('2026-11-24T12:00:00Z');
        $lot = new Lot(
            Uuid::v7(),
            $site,
            Uuid::v7(),
            new Supplier($site, 'Ridge Ranch'),
            new Product($site, 'Duck', Animal::Duck, Form::Cut, Integrity::Intact, null),
            'RR-1',
            4,
            9000,
            null,
            $isFrozen,
            null,
            null,
            new \DateTimeImmutable('2027-02-01'),
            $isAccepted,
            null,
            $at,
            $at,
            new Account($site, new Person('ike'), 'Ike', 'IS', Role::Crew),
        );
        $history = array_map(static fn (string $type): SiteEvent => new SiteEvent(
            $type,
            'lot',
            Instant::ofEpoch($at->getTimestamp()),
            Instant::ofEpoch($at->getTimestamp()),
            'account',
            'IS',
            $type,
            [],
        ), $moves);
        $onHand = new LotOnHand($lot, 4, 9000, $history);
        self::assertSame($useBy, $onHand->useBy()?->iso());
        self::assertSame($isAccepted, $onHand->hasAnyLeft());
    }

    /** @return iterable<string, array{bool, bool, list<string>, string|null}> */
    public static function lots(): iterable
    {
        yield 'kept cold' => [false, true, ['cold_hold'], '2027-02-01'];
        yield 'refused' => [false, false, [], null];
        yield 'frozen' => [true, true, [], '2027-02-01'];
        yield 'frozen here' => [false, true, ['cold_hold', 'freeze'], '2027-02-01'];
        yield 'thawing' => [true, true, ['thaw'], null];
        yield 'thawed, kept cold' => [true, true, ['thaw', 'cold_hold'], null];
        yield 'frozen, then kept cold' => [true, true, ['freeze', 'cold_hold'], null];
        yield 'thawed and frozen again' => [true, true, ['thaw', 'freeze'], '2027-02-01'];
        yield 'never frozen' => [false, true, ['thaw'], '2027-02-01'];
    }
}
