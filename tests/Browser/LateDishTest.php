<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;

/** A planned batch that runs late is brought in by what its plan offers; before other tests touch it. */
final class LateDishTest extends PlanTestCase
{
    public function testWhatRunsLateIsRescued(): void
    {
        $this->logIn();
        $this->schedule('Tonight');
        $this->seeIn('aside', 'Options:');
        $this->browser->findElement(WebDriverBy::cssSelector('aside a[href^="/log"]'))->click();
        $this->find('#line');
        self::assertStringContainsString('set', (string) $this->find('#line')->getAttribute('value'));
        $this->send($this->button('Save'));
        $this->schedule('Tonight');
        $later = $this->all('form[action$="/later"] button');
        if ($later !== []) {
            $this->send($later[0]);
            $this->seeIn('body', 'The serving time is changed');
        }
        self::assertSame(0, $this->broken());
    }
}
