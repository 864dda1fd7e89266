<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Kitchen;

/** What the parameters of addresses are filled with, in the kitchens of the tests: a query for one value. */
final readonly class RouteValues
{
    public const QUERIES = [
        'event' => "SELECT e.id FROM event e JOIN batch b ON b.id = e.batch_id WHERE b.tag = 7 AND e.type = 'cook'",
        'product' => 'SELECT id FROM product ORDER BY name LIMIT 1',
        'recipe' => 'SELECT id FROM recipe ORDER BY name LIMIT 1',
        'lot' => "SELECT id FROM lot WHERE number = 'RR-4471'",
        'pit' => 'SELECT id FROM pit ORDER BY name LIMIT 1',
        'plan' => "SELECT id FROM plan WHERE name = 'Harvest supper'",
        'dish' => "SELECT d.id FROM plan_dish d JOIN plan p ON p.id = d.plan_id
            WHERE p.name = 'Harvest supper' LIMIT 1",
        'alarm' => 'SELECT id FROM alarm ORDER BY id LIMIT 1',
        'sensor' => 'SELECT id FROM sensor ORDER BY name LIMIT 1',
        'thermometer' => 'SELECT id FROM thermometer ORDER BY label LIMIT 1',
    ];
}
