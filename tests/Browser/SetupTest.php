<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use Symfony\Component\Process\Process;

/** A kitchen of one's own, from the code of the console to the first entry, without a pointer. */
final class SetupTest extends BrowserTestCase
{
    public function testAKitchenIsSetUpByKeyboardAlone(): void
    {
        $command = new Process([\PHP_BINARY, 'bin/console', 'verjuicer:setup-code'], \dirname(__DIR__, 2));
        $command->mustRun();
        $this->screen(1280, 800, false);
        $this->open('/setup');
        $this->find('[name=code]');
        $typed = [
            trim($command->getOutput()),
            'Bend of the River',
            '12 Ferry Road',
            null, // the zone of this browser is there already
            '620 ft',
            null, // the code
            null, // US customary units
            null, // the fold of each unit
            null, // the language
            'Orla Finch',
            'of',
            'orla',
            'three slow rivers meet',
        ];
        foreach ($typed as $words) {
            $this->keys($words ?? '');
            $this->keys(WebDriverKeys::TAB);
        }
        $this->keys(WebDriverKeys::TAB); // past the fold of products, to the button
        $this->keys(WebDriverKeys::ENTER);
        $this->seeIn('main', 'First tasks');
        self::assertSame(
            ['Bend of the River|lb|12|F|189|OF'],
            $this->column(
                "SELECT concat_ws('|', s.name, s.weight_unit, s.clock, s.unit, s.elevation_m, a.initials)
                 FROM site s JOIN account a ON a.site_id = s.id WHERE NOT s.is_practice",
            ),
        );
        self::assertCount(0, $this->browser->findElements(WebDriverBy::cssSelector('.practice')));
    }

    private function keys(string $keys): void
    {
        if ($keys !== '') {
            $this->browser->switchTo()->activeElement()->sendKeys($keys);
        }
    }
}
