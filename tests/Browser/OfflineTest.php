<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;

/** At the pit without a network: what was seen opens, what is entered waits here, is sent when it is back, once. */
final class OfflineTest extends BrowserTestCase
{
    public function testEntriesMadeWithoutANetworkArriveOnceAndInOrder(): void
    {
        $this->logIn();
        $this->ready();
        $this->openTag(7);
        $batch = (string) parse_url($this->browser->getCurrentURL(), \PHP_URL_PATH);
        $open = 'SELECT id FROM alarm WHERE over_at IS NULL AND taken_at IS NULL ORDER BY id LIMIT 1';
        $alarm = $this->column($open)[0];
        $this->open("/alarms/$alarm");
        $this->find('main h1');
        $this->open('/');
        $this->find('#due-next');
        $this->cutOff();

        $this->open('/');
        $this->find('#due-next');
        $this->seeIn('#stale', 'No connection');
        $this->type('7 171.9');
        $this->seeIn('#unsent', '7 171.9');
        $this->seeIn('#unsent', 'not sent yet');
        $this->open($batch);
        $this->type('7 172.1');
        $this->seeIn('#unsent', '7 172.1');
        $this->type('7 nonsense');
        $this->open("/alarms/$alarm");
        $this->send($this->button("I've got it (MR)"));
        $this->seeIn('#unsent', 'Alarms');
        // On the kitchen's clock, whatever zone the device is in.
        $this->seeIn('#unsent', (new \DateTimeImmutable('now', new \DateTimeZone('America/Denver')))->format('H:'));
        self::assertCount(4, $this->browser->findElements(WebDriverBy::cssSelector('#unsent li')));
        $this->open('/plans');
        $this->seeIn('h1', 'No connection');

        // A browser that is closed and opened again has them still.
        $this->open('/');
        $this->seeIn('#unsent', '7 171.9');
        $this->reconnect();
        $this->open('/');
        $this->seeIn('#unsent', 'nonsense');
        $this->seeIn('#unsent', 'Delete entry');
        $made = $this->column(
            "SELECT members->'temp'->>'f' FROM event WHERE members->>'made_offline' = 'true' ORDER BY at, seq",
        );
        self::assertSame(['171.9', '172.1'], $made);
        self::assertSame(['MR'], $this->column("SELECT taken_by FROM alarm WHERE id = '$alarm'"));
        $this->browser->findElement(WebDriverBy::cssSelector('#unsent a[data-drop]'))->click();
        $this->until(fn (): bool => $this->find('#line')->getAttribute('value') === '7 nonsense');
        $this->open($batch);
        $this->seeIn('body', 'entered without a connection');
    }

    public function testTheDeviceWarnsByPlainLimitsAndAsksBeforeLoggingOut(): void
    {
        $held = $this->column(
            "SELECT o.tag FROM open_tag o JOIN board_lane l ON l.batch_id = o.batch_id
             WHERE l.facts->'stages'->-1->>0 = 'hot_hold' LIMIT 1",
        )[0];
        $this->logIn();
        $this->ready();
        $this->open('/');
        $this->find('#due-next');
        $this->cutOff();
        $this->open('/');
        $this->type("$held 128");
        $this->seeIn('#unsent', 'Under 135. Tell someone now');
        $this->reconnect();
        $this->open('/');
        // It may be doubted, or kept: either way nothing is lost on the way.
        $this->seeIn('body', "$held");
    }

    /** Until the worker of the pages is there. */
    private function ready(): void
    {
        $this->browser->executeAsyncScript(
            'const done = arguments[arguments.length - 1]; navigator.serviceWorker.ready.then(() => done(true));',
        );
        $this->open('/');
        $this->find('#due-next');
        $isControlled = 'return navigator.serviceWorker.controller !== null';
        $this->until(fn (): bool => $this->browser->executeScript($isControlled) === true);
    }
}
