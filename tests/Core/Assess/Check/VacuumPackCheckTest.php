<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** In a vacuum pack without an approved plan; and fish in one. */
final class VacuumPackCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        yield 'fish in a vacuum pack' => [
            'house.vacuum_pack',
            'caution',
            ['0 cold_hold', '10 pack method=vacuum'],
            '11',
            'fish cut',
        ];
        yield 'frozen fish in one' => [
            'house.vacuum_pack',
            'none',
            ['0 freeze', '10 pack method=vacuum'],
            '11',
            'fish cut',
        ];
        yield 'a vacuum pack for 48 h' => [
            'house.vacuum_pack',
            'none',
            ['0 cold_hold', '10 pack method=vacuum'],
            '2890',
        ];
        yield 'in it a second longer' => [
            'house.vacuum_pack',
            'caution',
            ['0 cold_hold', '10 pack method=vacuum'],
            '2890:01',
        ];
        yield 'another pack is none' => ['house.vacuum_pack', 'none', ['0 cold_hold', '10 pack method=tray'], '9000'];
        yield 'under an approved plan' => [
            'house.vacuum_pack',
            'none',
            ['0 cold_hold', '10 pack method=vacuum plan_name=plan-7'],
            '9000',
        ];
        yield 'opened in time' => [
            'house.vacuum_pack',
            'none',
            ['0 cold_hold', '10 pack method=vacuum', '2880 reheat for=immediate'],
            '9000',
        ];
        yield 'opened too late' => [
            'house.vacuum_pack',
            'caution',
            ['0 cold_hold', '10 pack method=vacuum', '2891 reheat for=immediate'],
            '9000',
        ];
        yield 'repacked in time' => [
            'house.vacuum_pack',
            'none',
            ['0 cold_hold', '10 pack method=vacuum', '2000 pack method=tray'],
            '9000',
        ];
        yield 'frozen days count, too' => [
            'house.vacuum_pack',
            'caution',
            ['0 cold_hold', '10 pack method=vacuum', '100 freeze', '8000 cold_hold'],
            '10000',
        ];
        yield 'but the thawed ones do' => [
            'house.vacuum_pack',
            'caution',
            ['0 cold_hold', '10 pack method=vacuum', '100 freeze', '8000 cold_hold'],
            '10791',
        ];
        yield 'thrown away in time' => [
            'house.vacuum_pack',
            'none',
            ['0 cold_hold', '10 pack method=vacuum', '2000 discard'],
            '9000',
        ];
    }
}
