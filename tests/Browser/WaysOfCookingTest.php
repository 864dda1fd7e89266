<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use Facebook\WebDriver\WebDriverSelect;
use PHPUnit\Framework\Attributes\DataProvider;

/**
 * Ways of cooking, carried through the interface from the raw meat to the plate: what is typed is what is judged, on
 * the page, in its file and by the command.
 */
final class WaysOfCookingTest extends BrowserTestCase
{
    /**
     * @param array{string, string, string, string, string, string} $begun product, tag, pieces, kilograms of one, when,
     *     temperature ('' is not read); a product after "*" goes straight onto the heat
     * @param list<string> $lines each after the tag
     * @param array<int|string, array<string, string>> $shown rules and their verdicts, by tag
     */
    #[DataProvider('ways')]
    public function testIsEnteredAfterwardsAndJudgedAsItWas(array $begun, array $lines, array $shown): void
    {
        $this->logIn();
        $this->beginAs(...$begun);
        foreach ($lines as $line) {
            $this->type($line, sure: true);
            if ($this->browser->findElements(WebDriverBy::cssSelector('button[name=new_spot]')) !== []) {
                $this->send($this->find('button[name=new_spot]'));
            } elseif ($this->browser->findElements(WebDriverBy::cssSelector('button[name=free]')) !== []) {
                $this->send($this->find('button[name=free]'));
            }
            $this->find('main [role=status]');
        }
        foreach ($shown as $tag => $rules) {
            $this->openAny((string) $tag);
            self::assertSame(
                $rules,
                array_intersect_key($this->ofTheCommand()['rules_judged'], $rules),
                "tag $tag, by the command",
            );
            $file = json_decode($this->fetched('/assessment.json'), true, flags: \JSON_THROW_ON_ERROR);
            self::assertIsArray($file);
            self::assertIsArray($file['rules_judged']);
            self::assertSame($rules, array_intersect_key($file['rules_judged'], $rules), "tag $tag, in its file");
            foreach ($rules as $rule => $verdict) {
                self::assertNotSame(
                    [],
                    $this->browser->findElements(
                        WebDriverBy::cssSelector("[data-rule=\"$rule\"][data-verdict=$verdict]"),
                    ),
                    "tag $tag, $rule on the page",
                );
            }
        }
    }

    /**
     * @return iterable<string, array{array{string, string, string, string, string, string}, list<string>,
     *     array<int|string, array<string, string>>}>
     */
    public static function ways(): iterable
    {
        yield 'ribs, by the clock and then by temperature, between several bones' => [
            ['Pork ribs', '31', '2', '1.4', '6 h', '37.6'],
            [
                '31 season salt and pepper -350',
                '31 cook Offset 250 -340',
                '31 spritz -250',
                '31.1 wrap foil -150',
                '31.2 wrap foil -149',
                '31 unwrap -45',
                '31.1 ribs 196 -30',
                '31.1 between bones 3-4 193 -29',
                '31.2 ribs 199 -28',
                '31.2 bone 2 198 -27',
                '31 off rack -25',
                '31 serve -5',
            ],
            [31 => ['cook' => 'met', 'rest' => 'met']],
        ];
        yield 'a brisket straight onto the heat, its raw temperature at a spot nobody reads again' => [
            ['*Beef brisket', '32', '1', '6.1', '14 h', '39'],
            ['32 point 152 -420', '32 wrap paper -410', '32 point 203 -130', '32 off towels -125', '32 point 178 -40'],
            [32 => ['cook' => 'met', 'rest' => 'running']],
        ];
        yield 'a pit that sagged, written down later, closes the low rows of a roast' => [
            ['*Lamb leg', '33', '1', '2.6', '4 h', '40'],
            ['33 cook Oven 350 -239', '33 core 138 -60', '33 core 139 -41', '33 off foil -40', '33 pit 288 -120'],
            [33 => ['cook' => 'running']],
        ];
        yield 'three bellies of which one comes off earlier' => [
            ['*Pork butt', '34', '3', '3.2', '10 h', '38'],
            [
                '34.1 core 201 -100',
                '34.1 off rack -95',
                '34.2 core 168 -80',
                '34.3 core 171 -79',
                '34.1 core 177 -30',
                '341 serve -10',
                '34.2 core 198 -9',
                '34.3 core 201 -8',
            ],
            [34 => ['cook' => 'met'], 341 => ['cook' => 'met', 'rest' => 'met']],
        ];
        yield 'slicing and chopping out of one batch' => [
            ['*Beef brisket', '35', '2', '5.8', '13 h', '40'],
            [
                '35.1 target 187 slice',
                '35.2 target 204 chop',
                '35.1 flat 188 -150',
                '35.1 off towels -148',
                '35.1 flat 158 -60',
                '351 slice -58',
                '351 hold cabinet -57',
                '351 flat 151 -40',
                '35.2 flat 205 -70',
                '35 off towels -68',
                '35 flat 190 -30',
                '35 chop -20',
                '35 hold cabinet -19',
                '35 171 -10',
            ],
            [35 => ['cook' => 'met', 'hot_hold' => 'running'], 351 => ['cook' => 'met', 'hot_hold' => 'running']],
        ];
        yield 'pulled meat, held hot' => [
            ['*Pork butt', '36', '1', '3.4', '12 h', '41'],
            [
                '36 core 199 -180',
                '36 off box -175',
                '36 core 171 -90',
                '36 pull -80',
                '36 hold steam table -75',
                '36 158 -70',
                '36 152 -20',
                '36 weigh 2.1 kg -19',
                '36 serve 0.4 kg -10',
                '36 serve 6 plates -5',
            ],
            [36 => ['cook' => 'met', 'hot_hold' => 'running', 'rest' => 'met']],
        ];
        yield 'and its cold side, by the clock' => [
            ['Slaw', '37', '1', '3', '150', '38'],
            ['37 cold walk-in -140', '37 39 -62', '37 clock cold -60', '37 serve 20 plates -30'],
            [37 => ['time_control' => 'running']],
        ];
        yield 'a night in the switched-off oven' => [
            ['*Beef brisket', '38', '1', '6', '26 h', '38'],
            ['38 flat 202 -800', '38 off switched-off oven -790', '38 flat 129 -100'],
            [38 => ['cook' => 'met', 'cool.stage1' => 'not_shown']],
        ];
        yield 'a braise, and its liquid as a side' => [
            ['*Beef cheek', '39', '6', '0.5', '7 h', '39'],
            [
                '39 core 160 -240',
                '39 wrap pan with house stock -235',
                '39 braise Oven 300 -230',
                '39.1 205 -40',
                '39.2 204 -39',
                '39.3 206 -38',
                '39.4 205 -37',
                '39.5 203 -36',
                '39.6 205 -35',
                '39 off -30',
                '39 serve -5',
            ],
            [39 => ['cook' => 'met']],
        ];
        yield 'a week of lunches out of one shoulder' => [
            ['*Pork butt', '40', '1', '3.1', '120 h', '39'],
            [
                '40 core 201 -6500',
                '40 off rack -6490',
                '40 core 150 -6400',
                '40 pull -6390',
                '40 cool shallow pans -6385',
                '40 134 -6380',
                '40 66 -6290',
                '40 40 -6120',
                '40 cold walk-in -6110',
                '40 38 -4000',
                '40 weigh 1.8 kg -4000',
                '40 serve 0.6 kg -3000',
                '40 39 -1500',
                '40 serve 0.5 kg -100',
                '40 38.5 -90',
            ],
            [40 => ['cook' => 'met', 'cool.stage1' => 'met', 'cool.total' => 'met', 'date_mark' => 'running']],
        ];
        yield 'catering with carriers' => [
            ['*Turkey breast', '41', '1', '3', '8 h', '39'],
            [
                '41 breast 167 -200',
                '41 off foil -195',
                '41 hold carrier 1 -180',
                '41 breast 158 -178',
                '41 loaded van -170',
                '41 onway -160',
                '41 arrived the hall -120',
                '41 breast 149 -115',
                '41 serve -20',
            ],
            [41 => ['cook' => 'met', 'hot_hold' => 'met']],
        ];
    }

    public function testAProbeSixteenDegreesOffForHoursIsTakenBackByOneEntry(): void
    {
        $this->logIn();
        $this->beginAs('*Lamb leg', '42', '1', '2.7', '5 h', '40');
        foreach (
            [
                '42 core 121 -200',
                '42 core 128 -140',
                '42 core 129 -80',
                '42 core 144 -20',
                '42 core 149 -15',
                '42 core 150 -10',
                '42 off foil -9',
            ] as $line
        ) {
            $this->type($line, sure: true);
        }
        $this->openTag(42);
        $this->open($this->path().'/doubted');
        $fields = ['from' => '201', 'to' => '79', 'reason' => 'it lay against the bone, 16 too low'];
        foreach ($fields as $name => $typed) {
            $this->find("[name=$name]")->sendKeys($typed);
        }
        $this->button('Void these readings')->click();
        $this->seeIn('#everything', '3 readings of core');
        $this->seeIn('[data-rule=cook][data-verdict=met]', 'Reached');
        self::assertSame('met', $this->ofTheCommand()['rules_judged']['cook']);
    }

    public function testARareRoastIsServedUnderTheAdvisory(): void
    {
        $this->logIn('dell');
        $this->open('/site');
        if ($this->find('[name=advisory]')->getAttribute('checked') === null) {
            $this->find('[name=advisory]')->click();
            $this->find('[name=advisory]')->submit();
        }
        $this->beginAs('*Beef rib roast', '43', '1', '5.2', '5 h', '40', advisory: true);
        foreach (['43 core 119 -45', '43 off rack -44', '43 core 124 -20'] as $line) {
            $this->type($line, sure: true);
        }
        $this->openTag(43);
        self::assertStringNotContainsString(
            'shallow pans',
            $this->find('main')->getText(),
            'nobody is told to cool what is served rare',
        );
        $this->type('43 serve -5', sure: true);
        $this->openAny('43');
        $this->button('Record as done: Serve it under the consumer advisory, undercooked on purpose.')->click();
        $this->seeIn('#everything', 'Serve it under the consumer advisory');
        self::assertSame(
            [],
            $this->browser->findElements(WebDriverBy::cssSelector('#actions [name=finding][value=cook]')),
            'it is resolved',
        );
        $this->seeIn('[data-rule=cook]', 'Served under the consumer advisory. The limit is still not met.');
    }

    private function beginAs(
        string $product,
        string $tag,
        string $pieces,
        string $kilograms,
        string $when,
        string $temp,
        bool $advisory = false,
    ): void {
        $this->open('/batches/new');
        (new WebDriverSelect($this->find('[name=lot]')))->selectByValue('no_lot');
        (new WebDriverSelect($this->find('[name=product]')))->selectByVisibleText(ltrim($product, '*'));
        $fields = ['tag' => $tag, 'pieces' => $pieces, 'weight' => $kilograms, 'temp' => $temp, 'when' => $when];
        foreach ($fields as $name => $typed) {
            $this->find("[name=$name]")
                ->clear()
                ->sendKeys($typed);
        }
        if ($product[0] === '*') {
            $this->find('[name=start][value=cook]')->sendKeys(WebDriverKeys::SPACE);
        }
        if ($advisory) {
            $this->find('[name=advisory]')->sendKeys(WebDriverKeys::SPACE);
        }
        $this->send($this->button('Start batch'));
        // Why it is late is asked first, then whether the time is right.
        $answers = ['[name=reason]' => 'the card lay at the pit', '[name=sure]' => WebDriverKeys::SPACE];
        foreach ($answers as $asked => $keys) {
            foreach ($this->browser->findElements(WebDriverBy::cssSelector($asked)) as $field) {
                $field->sendKeys($keys);
                $this->send($this->button('Start batch'));
            }
        }
        $this->find('#everything');
    }

    private function path(): string
    {
        return (string) parse_url($this->browser->getCurrentURL(), \PHP_URL_PATH);
    }

    /** The page of the last batch with this tag, ended or not. */
    private function openAny(string $tag): void
    {
        $this->open('/find?words='.$tag);
        $href = $this->browser->executeScript(
            'return [...document.querySelectorAll("main a[href^=\"/batches/\"]")]'
.'.find((link) => new RegExp(`\\\\b${arguments[0]}\\\\b`).test(link.textContent))?.getAttribute("href")',
            [$tag],
        );
        self::assertIsString($href, $this->find('main')->getText());
        $this->open($href);
    }
}
