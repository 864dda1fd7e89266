<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Demo;

use Verjuicer\App\Platform\Wording\UnitSystem;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Food\Oven;
use Verjuicer\Core\Food\ProcedureKind;
use Verjuicer\Core\Measure\TemperatureUnit;

/** The Quarry Lane Smokehouse, an invented restaurant on the day the demo is loaded. Minutes count from that moment. */
final readonly class DemoKitchen
{
    public const PAPERS = [
        [-7200, 'dell', ProcedureKind::TimeControl],
        [-7195, 'dell', ProcedureKind::Cooling],
        [-7190, 'dell', ProcedureKind::VacuumPack],
        [-7185, 'dell', ProcedureKind::FlavourSmoke],
        [-7180, 'dell', ProcedureKind::Recall],
        [-7175, 'dell', ProcedureKind::ThermometerChecks],
        [-7170, 'dell', ProcedureKind::CorrectiveActions],
    ];
    private const PASSWORD = 'oak-and-patience';

    /** Login, name, initials, role. */
    private const PEOPLE = [
        ['mara', 'Mara Rook', 'MR', 'pitmaster'],
        ['ike', 'Ike Tallow', 'IT', 'crew'],
        ['dell', 'Dell Farrow', 'DF', 'manager'],
        ['wynn', 'Wynn Sable', 'WS', 'inspector'],
        ['ona', 'Ona Quill', 'OQ', 'owner'],
    ];

    private const PITS = [['Drum', Oven::Convection, 40], ['Offset', Oven::Convection, 90], ['Oven', Oven::Still, 30]];

    /** Pit, and its entries: minutes, person, sign, °F or null. */
    private const PIT_LOG = [
        'Drum' => [
            [-720, 'mara', 'lit', null],
            [-700, 'mara', 'clean_smoke', null],
            [-695, 'mara', 'set', 250],
            [-680, 'mara', 'preheated', null],
            [-678, 'mara', 'reading', 251],
            [-600, 'mara', 'reading', 246],
            [-480, 'mara', 'fuel', null],
            [-470, 'mara', 'reading', 238],
            [-400, 'mara', 'reading', 255],
            [-304, 'mara', 'reading', 252],
            [-240, 'ike', 'lid_opened', null],
            [-237, 'ike', 'lid_closed', null],
            [-180, 'ike', 'reading', 244],
            [-90, 'ike', 'reading', 249],
            [-20, 'ike', 'reading', 253],
        ],
        'Offset' => [
            [-470, 'mara', 'lit', null],
            [-440, 'mara', 'clean_smoke', null],
            [-430, 'mara', 'set', 275],
            [-420, 'mara', 'preheated', null],
            [-415, 'mara', 'reading', 277],
            [-240, 'mara', 'fuel', null],
            [-170, 'ike', 'reading', 262],
            [-75, 'ike', 'reading', 238],
            [-48, 'ike', 'reading', 231],
            [-22, 'ike', 'reading', 226],
        ],
        'Oven' => [],
    ];

    /** Name, kind, minutes between checks. */
    private const HOLD_UNITS = [
        ['cabinet', Holding::Cabinet, 120],
        ['steam table', Holding::SteamTable, 60],
        ['carrier 1', Holding::Carrier, 90],
    ];

    /**
     * Minutes, who, supplier, product, lot, pieces, grams of all, cents, °F or null, frozen, thermometer, days to
     * use-by, accepted, reason, and moves: minutes, type, place.
     */
    private const LOTS = [
        [
            -1500,
            'mara',
            'Hollow Creek Farm',
            'Lamb shoulder',
            'HC-2207',
            6,
            13900,
            16680,
            38.2,
            false,
            'T1',
            5,
            true,
            null,
            [[-1490, 'cold_hold', 'walk-in, low shelf']],
        ],
        [
            -1500,
            'mara',
            'Hollow Creek Farm',
            'Goat leg',
            'HC-2211',
            4,
            9700,
            13580,
            39.0,
            false,
            'T1',
            4,
            true,
            null,
            [[-1490, 'cold_hold', 'walk-in, low shelf']],
        ],
        [
            -2900,
            'mara',
            'North Fork Poultry',
            'Duck',
            'NF-881',
            8,
            17800,
            20470,
            null,
            true,
            null,
            90,
            true,
            null,
            [[-2890, 'freeze', 'chest freezer'], [-2200, 'thaw', 'walk-in, drip tray']],
        ],
        [
            -410,
            'ike',
            'North Fork Poultry',
            'Chicken, whole',
            'NF-902',
            12,
            20600,
            11330,
            40.6,
            false,
            'T3',
            3,
            true,
            null,
            [[-402, 'cold_hold', 'walk-in']],
        ],
        [
            -410,
            'ike',
            'North Fork Poultry',
            'Chicken thighs',
            'NF-903',
            40,
            6500,
            4550,
            44.8,
            false,
            'T3',
            3,
            false,
            'above 41 °F, sent back with the driver',
            [],
        ],
        [
            -1620,
            'mara',
            'Ridge Road Provisions',
            'Pork loin',
            'RR-4471',
            3,
            6100,
            5490,
            37.4,
            false,
            'T1',
            6,
            true,
            null,
            [[-1610, 'cold_hold', 'walk-in']],
        ],
    ];

    /** Name, kind, grams on a kilogram, ingredients: name, parts, cents a kilogram, allergens. */
    private const RECIPES = [
        [
            'Quarry rub',
            'rub',
            22,
            [['Coarse salt', 4, 90, []], ['Black pepper, cracked', 4, 1450, []], ['Smoked paprika', 1, 1800, []]],
        ],
        ['Mustard binder', 'binder', 10, [['Yellow mustard', 1, 420, []]]],
        [
            'Orchard brine',
            'brine',
            100,
            [
                ['Water', 90, 0, []],
                ['Salt', 6, 90, []],
                ['Apple juice', 10, 180, []],
                ['Soy sauce', 2, 520, ['soy', 'wheat']],
            ],
        ],
        ['Cider spritz', 'spritz', 20, [['Apple cider vinegar', 1, 260, []], ['Water', 1, 0, []]]],
        [
            'Butter sauce',
            'sauce',
            40,
            [['Butter', 5, 980, ['milk']], ['Tomato', 3, 300, []], ['Anchovy', 1, 2400, ['fish']]],
        ],
    ];

    /** Label, kind, serial, range, holder. */
    private const THERMOMETERS = [
        'T1' => ['instant', 'QL-0117', '-40 to 572 °F', 'Mara'],
        'T2' => ['instant', 'QL-0119', '-40 to 572 °F', 'Ike'],
        'T3' => ['leave_in', 'QL-0204', '14 to 482 °F', 'Drum'],
    ];

    /** Thermometer, and its checks: minutes, method, read °F. */
    private const CHECKS = [
        'T1' => [[-1500, 'ice', 32.2], [-430, 'ice', 32.3], [-425, 'boil', 202.6]],
        'T2' => [[-1500, 'ice', 31.4], [-24, 'ice', 36.8]],
        'T3' => [[-1500, 'ice', 32.0], [-428, 'ice', 31.8]],
    ];

    public static function story(): Story
    {
        return new Story(
            'Quarry Lane Smokehouse',
            'America/Denver',
            TemperatureUnit::Fahrenheit,
            1610,
            'us-food-code-2022',
            self::PASSWORD,
            self::PEOPLE,
            self::RECIPES,
            self::HOLD_UNITS,
            self::THERMOMETERS,
            self::CHECKS,
            self::PITS,
            self::PIT_LOG,
            self::LOTS,
            self::batches(),
            self::divisions(),
            self::PAPERS,
            UnitSystem::UsCustomary,
        );
    }

    /**
     * Tag 26, too thick to cool in time, goes into shallow pans an hour and a half ago; each has been read since.
     *
     * @return list<array{int, int, string, list<array{int, int, string, int}>, list<array{int, int, string, string}>}>
     */
    private static function divisions(): array
    {
        $entries = [];
        foreach ([261, 262] as $index => $tag) {
            $entries[] = [$tag, -80, 'ike', 'cool shallow pans'];
            foreach ([-62 => 98, -45 => 80, -31 => 69, -14 => 61] as $minutes => $degrees) {
                $entries[] = [$tag, $minutes, 'ike', $degrees - $index.' T1'];
            }
        }

        return [[26, -88, 'ike', [[261, 1700, 'pan', 50], [262, 1700, 'pan', 50]], $entries]];
    }

    /**
     * Each batch: tag, product, pieces, grams of one piece, lot or null, minutes until it is wanted or null, and its
     * events: minutes, who, entry, and for a reading its thermometer. An entry is written as in the log line, without
     * the tag.
     *
     * @return list<array{int, string, int, int, string|null, int|null, list<array{int, string, string}>}>
     */
    private static function batches(): array
    {
        return [
            // Calm: in the pit, through the stall, read in time.
            [
                7,
                'Lamb shoulder',
                4,
                2300,
                'HC-2207',
                125,
                [
                    [-345, 'mara', 'prep'],
                    [-345, 'mara', '.1 39.4 T1'],
                    [-335, 'mara', 'trim'],
                    [-330, 'mara', 'season Quarry rub'],
                    [-305, 'mara', 'cook Drum'],
                    [-245, 'mara', '.1 71 T1'],
                    [-185, 'mara', '.1 108 T1'],
                    [-140, 'ike', '.1 138 T1'],
                    [-95, 'ike', '.1 154 T1'],
                    [-60, 'ike', '.1 158 T1'],
                    [-59, 'ike', '.2 156 T1'],
                    [-58, 'ike', '.3 161 T1'],
                    [-57, 'ike', '.4 155 T1'],
                    [-50, 'ike', 'wrap paper'],
                    [-6, 'ike', '.1 171 T1'],
                ],
            ],
            // Cooling, and too slow for its first gate.
            [
                12,
                'Turkey breast',
                2,
                3100,
                null,
                null,
                [
                    [-390, 'mara', 'prep'],
                    [-372, 'mara', 'cook 300 convection'],
                    [-330, 'mara', '.1 48 T3'],
                    [-270, 'mara', '.1 112 T3'],
                    [-210, 'mara', '.1 146 T3'],
                    [-152, 'ike', '.1 166 T3'],
                    [-150, 'ike', '.2 168.5 T3'],
                    [-145, 'ike', 'off rack'],
                    [-118, 'ike', '.1 152 T3'],
                    [-117, 'ike', '.2 149 T3'],
                    [-96, 'ike', 'cool shallow pans'],
                    [-86, 'ike', '.1 137 T3'],
                    [-85, 'ike', '.2 135 T3'],
                    [-62, 'ike', '.1 124 T3'],
                    [-61, 'ike', '.2 121 T3'],
                    [-34, 'ike', '.1 98 T3'],
                    [-11, 'ike', '.1 87 T3'],
                    [-10, 'ike', '.2 84 T3'],
                ],
            ],
            // Resting in a box, still hot when last read.
            [
                3,
                'Mutton ham',
                1,
                4800,
                null,
                null,
                [
                    [-640, 'mara', 'prep'],
                    [-620, 'mara', 'cook 240 convection'],
                    [-500, 'mara', '78 T1'],
                    [-400, 'mara', '141 T1'],
                    [-300, 'mara', '163 T1'],
                    [-200, 'mara', '188 T1'],
                    [-146, 'mara', '201 T1'],
                    [-140, 'mara', 'rest insulated box'],
                    [-100, 'ike', '176 T1'],
                    [-48, 'ike', '149 T1'],
                ],
            ],
            // Held hot; its check is late.
            [
                21,
                'Beef cheek',
                6,
                450,
                null,
                null,
                [
                    [-700, 'mara', 'cook 260 convection'],
                    [-560, 'mara', '.1 158 T1'],
                    [-420, 'mara', '.1 203 T1'],
                    [-419, 'mara', '.2 201 T1'],
                    [-418, 'mara', '.3 204 T1'],
                    [-417, 'mara', '.4 202 T1'],
                    [-416, 'mara', '.5 199 T1'],
                    [-415, 'mara', '.6 205 T1'],
                    [-400, 'mara', 'hold cabinet'],
                    [-395, 'mara', '.1 158 T1'],
                    [-290, 'ike', '.1 152 T1'],
                    [-214, 'ike', '.1 149 T1'],
                    [-125, 'ike', '.1 146 T1'],
                ],
            ],
            // Injected: the shorter come-up clock is running.
            [
                5,
                'Goat leg',
                2,
                2400,
                'HC-2211',
                300,
                [
                    [-235, 'mara', 'prep'],
                    [-228, 'mara', 'inject Orchard brine'],
                    [-203, 'mara', 'cook Drum'],
                    [-160, 'mara', '.1 62 T3'],
                    [-110, 'ike', '.1 92 T3'],
                    [-70, 'ike', '.1 113 T3'],
                    [-30, 'ike', '.1 127 T3'],
                    [-29, 'ike', '.2 125 T3'],
                    [-4, 'ike', '.1 133 T3'],
                    [-3, 'ike', '.2 131 T3'],
                ],
            ],
            // Out by the clock, without heat.
            [
                9,
                'House sausage',
                3,
                140,
                null,
                null,
                [
                    [-250, 'mara', 'cook 225 convection'],
                    [-130, 'mara', '.1 159 T1'],
                    [-129, 'mara', '.2 161 T1'],
                    [-128, 'mara', '.3 160 T1'],
                    [-120, 'mara', 'hold steam table'],
                    [-118, 'mara', '.1 152 T1'],
                    [-92, 'ike', '.1 147 T1'],
                    [-92, 'ike', 'clock hot'],
                    [-20, 'ike', '.1 118 T1'],
                ],
            ],
            // Its first gate lies between two readings: the record cannot show that it was in time.
            [
                15,
                'Duck',
                2,
                2200,
                'NF-881',
                null,
                [
                    [-1380, 'mara', 'cook 300 convection'],
                    [-1215, 'mara', '.1 172 T1'],
                    [-1214, 'mara', '.2 169 T1'],
                    [-1205, 'mara', 'off rack'],
                    [-1190, 'mara', 'cool ice bath'],
                    [-1188, 'mara', '.1 151 T1'],
                    [-1187, 'mara', '.2 148 T1'],
                    [-1140, 'ike', '.1 118 T1'],
                    [-1139, 'ike', '.2 116 T1'],
                    [-1075, 'ike', '.1 78 T1'],
                    [-1074, 'ike', '.2 76 T1'],
                    [-1052, 'ike', '.1 66 T1'],
                    [-1051, 'ike', '.2 64 T1'],
                    [-880, 'ike', '.1 40 T1'],
                    [-879, 'ike', '.2 39.5 T1'],
                    [-870, 'ike', 'cold walk-in'],
                    [-200, 'mara', '.1 37.8 T1'],
                    [-199, 'mara', '.2 38.1 T1'],
                ],
            ],
            // Injected, and taken off as if it were intact.
            [
                18,
                'Pork loin',
                2,
                2000,
                'RR-4471',
                null,
                [
                    [-330, 'mara', 'prep'],
                    [-322, 'mara', 'inject'],
                    [-300, 'mara', 'cook 250 convection'],
                    [-200, 'mara', '.1 104 T3'],
                    [-140, 'ike', '.1 131 T3'],
                    [-112, 'ike', '.1 141 T3'],
                    [-111, 'ike', '.2 142.5 T3'],
                    [-108, 'ike', 'off rack'],
                    [-92, 'ike', '.1 143.8 T3'],
                    [-91, 'ike', '.2 144.2 T3'],
                    [-84, 'ike', 'hold cabinet'],
                    [-80, 'ike', '.1 141 T3'],
                    [-79, 'ike', '.2 142 T3'],
                ],
            ],
            // A night in a switched-off oven: it fell below the hot-holding limit unnoticed.
            [
                24,
                'Beef brisket',
                1,
                6400,
                null,
                null,
                [
                    [-1450, 'mara', 'prep'],
                    [-1420, 'mara', 'cook 250 convection'],
                    [-1200, 'mara', 'flat 141 T1'],
                    [-1000, 'mara', 'flat 162 T1'],
                    [-800, 'mara', 'flat 186 T1'],
                    [-640, 'mara', 'flat 203 T1'],
                    [-638, 'mara', 'point 206 T1'],
                    [-630, 'mara', 'rest switched-off oven'],
                    [-16, 'ike', 'flat 118 T1'],
                    [-15, 'ike', 'point 124 T1'],
                ],
            ],
            // Read with a thermometer that failed its ice check since.
            [
                16,
                'Chicken, whole',
                3,
                1700,
                'NF-902',
                60,
                [
                    [-170, 'mara', 'cook Offset 325'],
                    [-95, 'ike', '.1 128 T2'],
                    [-46, 'ike', '.1 166 T2'],
                    [-45, 'ike', '.2 168 T2'],
                    [-44, 'ike', '.3 167 T2'],
                ],
            ],
            // A cooling rescued: too slow in the whole, then split into shallow pans.
            [
                26,
                'Pork butt',
                2,
                3600,
                null,
                null,
                [
                    [-700, 'mara', 'cook Offset 275'],
                    [-400, 'mara', '.1 172 T1'],
                    [-330, 'mara', '.1 196 T1'],
                    [-329, 'mara', '.2 198 T1'],
                    [-325, 'ike', 'off foil'],
                    [-250, 'ike', '.1 161 T1'],
                    [-160, 'ike', '.1 139 T1'],
                    [-150, 'ike', 'cool walk-in rack'],
                    [-148, 'ike', '.1 136.5 T1'],
                    [-100, 'ike', '.1 124 T1'],
                ],
            ],
            // Reheated for the steam table; not there yet.
            [
                27,
                'Lamb shoulder',
                1,
                2300,
                null,
                null,
                [
                    [-2900, 'mara', 'cook Offset 275'],
                    [-2600, 'mara', '199 T1'],
                    [-2590, 'mara', 'off rack'],
                    [-2560, 'mara', 'cool ice bath'],
                    [-2558, 'mara', '138 T1'],
                    [-2500, 'ike', '69 T1'],
                    [-2400, 'ike', '40 T1'],
                    [-2395, 'ike', 'cold walk-in'],
                    [-1000, 'ike', '38 T1'],
                    [-70, 'ike', 'reheat'],
                    [-68, 'ike', '39.5 T1'],
                    [-30, 'ike', '112 T1'],
                ],
            ],
            // In a vacuum pack since yesterday.
            [
                28,
                'Beef cheek',
                4,
                450,
                null,
                null,
                [
                    [-3300, 'mara', 'cook Offset 275'],
                    [-2980, 'mara', '.1 204 T1'],
                    [-2979, 'mara', '.2 203 T1'],
                    [-2978, 'mara', '.3 205 T1'],
                    [-2977, 'mara', '.4 203 T1'],
                    [-2970, 'mara', 'cool ice bath'],
                    [-2968, 'mara', '.1 141 T1'],
                    [-2930, 'ike', '.1 68 T1'],
                    [-2890, 'ike', '.1 39 T1'],
                    [-2880, 'ike', 'cold walk-in'],
                    [-2300, 'ike', 'pack vacuum'],
                    [-600, 'ike', '.1 37.5 T1'],
                ],
            ],
            // Finished, and all of it shown.
            [
                11,
                'Pork ribs',
                3,
                1300,
                null,
                null,
                [
                    [-420, 'mara', 'prep'],
                    [-400, 'mara', 'cook 265 convection'],
                    [-290, 'mara', '.1 139 T1'],
                    [-180, 'ike', '.1 171 T1'],
                    [-150, 'ike', 'wrap foil'],
                    [-112, 'ike', '.1 198 T1'],
                    [-111, 'ike', '.2 201 T1'],
                    [-110, 'ike', '.3 199 T1'],
                    [-106, 'ike', 'off rack'],
                    [-80, 'ike', '.2 168 T1'],
                    [-66, 'ike', 'serve'],
                ],
            ],
        ];
    }
}
