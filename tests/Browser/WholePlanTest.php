<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;

/**
 * The plans of the made-up kitchen, worked with as a pitmaster does: mended, moved, made real. Last of the suite, for
 * it fills the board.
 */
final class WholePlanTest extends PlanTestCase
{
    public function testASupperIsMendedMovedAndMadeReal(): void
    {
        $this->logIn();
        $this->schedule('Harvest supper');
        $breaks = $this->broken();
        self::assertGreaterThan(1, $breaks);
        self::assertCount(6, $this->all('[data-strip]'));
        // The best way out of each is taken, until none is offered: the plan is sound then, or says what is not.
        $taken = 0;
        while ($taken < 8 && ($offered = $this->all('aside button[name=way]')) !== []) {
            $this->send($offered[0]);
            ++$taken;
        }
        self::assertGreaterThan(1, $taken);
        self::assertLessThan($breaks, $this->broken());
        $this->moveByKeysAndByHand();
        $made = \count($this->realTags());
        while (($button = $this->all('aside form .key-main')) !== []) {
            $this->send($button[0]);
            $now = \count($this->realTags());
            self::assertGreaterThan($made, $now);
            $made = $now;
        }
        self::assertSame(6, $made);
        $this->find('[data-strip]');
        $this->browser->findElement(WebDriverBy::cssSelector('.strip-words a[href^="/batches/"]'))->click();
        $this->seeIn('body', 'wanted by');
        self::assertContains($this->ofTheCommand()['verdict'], ['met', 'running', 'not_shown']);
    }

    public function testALunchAndACookAndChillBecomeReal(): void
    {
        $this->logIn('ike');
        foreach (['Weekday lunch' => 2, 'Monday, cooked and chilled' => 2] as $plan => $batches) {
            $this->schedule($plan);
            while (($button = $this->all('aside form .key-main')) !== []) {
                $this->send($button[0]);
            }
            // What would miss a limit as planned is started on its own page, on purpose.
            while (($held = $this->all('[data-held] a')) !== []) {
                $this->send($held[0]);
                $this->find('[name=sure]')->sendKeys(WebDriverKeys::SPACE);
                $this->send($this->button('Start this batch now'));
                $this->schedule($plan);
            }
            self::assertCount($batches, $this->realTags(), $plan);
        }
    }

    public function testWorksWithoutScript(): void
    {
        $this->restartWithoutScript();
        $this->logIn();
        $this->schedule('Weekday lunch');
        $before = $this->find('.strip-words')->getText();
        $nudge = $this->all('button.nudge[value="-15"]');
        if ($nudge === []) {
            self::assertNotSame([], $this->realTags(), 'it was made real by another test');

            return;
        }
        $nudge[0]->click();
        $this->find('[data-strip]');
        self::assertNotSame($before, $this->find('.strip-words')->getText());
    }

    private function moveByKeysAndByHand(): void
    {
        $grip = $this->find('g[role=slider]');
        $before = $this->start();
        $this->browser->executeScript('arguments[0].focus()', [$grip]);
        $grip->sendKeys([WebDriverKeys::ARROW_LEFT, WebDriverKeys::ARROW_LEFT]);
        $this->waitForMove($before, -30);
        self::assertSame(
            $this->find('g[role=slider]')->getAttribute('data-id'),
            $this->browser->executeScript('return document.activeElement.dataset.id'),
            'it stays in hand',
        );
        $before = $this->start();
        $bar = $this->find('g[role=slider] rect.s-cook');
        $this->browser->action()->dragAndDropBy($bar, 24, 0)->perform();
        $this->until(fn (): bool => $this->start() > $before);
    }

    private function waitForMove(int $before, int $minutes): void
    {
        $this->until(fn (): bool => abs($this->start() - $before - $minutes) <= 5);
    }

    /** @return int where the first bar begins, in minutes */
    private function start(): int
    {
        return (int) $this->find('g[role=slider]')->getAttribute('aria-valuenow');
    }
}
