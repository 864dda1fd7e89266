<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use Facebook\WebDriver\WebDriverSelect;

/** A day at the pit, as people do it. */
final class ServiceTest extends BrowserTestCase
{
    public function testABatchIsLoggedThroughToServedByKeyboardAndKeypad(): void
    {
        $this->logIn('ike');
        $this->begin('Pork ribs', '51');

        $this->type('51 38.5 T1');
        $this->seeIn('main [role=status]', 'Saved: Tag 51, Pork ribs · ribs · 38.5 °F · T1 · now');
        $this->type('51 cook 250 convection');
        $this->seeIn('[data-rule=cook]', 'No valid reading yet. Needs 145 °F held 15 s (intact cut).');

        // The keypad: tag, number, done.
        $this->open('/');
        $this->button('Keypad')->click();
        $this->press('51', '6', '1', 'T1');
        $this->seeIn('#echo', 'Tag 51, Pork ribs · ribs · 61 °F · T1 · now');
        $this->button('Save')->click();
        $this->seeIn('main [role=status]', '61 °F');

        // A jump no meat makes is asked about once.
        $this->type('51 203');
        $this->seeIn('[role=alertdialog]', 'This change since the last reading is bigger than meat can make');
        $this->button('Yes, save it')->click();
        $this->seeIn('main [role=status]', '203 °F');

        $this->openTag(51);
        $this->seeIn('[data-rule=cook][data-verdict=met]', 'Reached 145 °F held 15 s: read 203 °F');
        $this->seeIn('[data-rule=cook]', '3-401.11(A)(1)');
        $this->button('Off the heat')->click();
        $this->find('details[open] > form [name=method]')->sendKeys('rack under foil');
        $this->find('details[open] > form > button')->click();
        $this->seeIn('[data-rule=rest]', 'Resting, with no reading yet. Check by');
        $this->button('More steps')->click();
        $this->button('Record: served')->click();
        $this->find('details[open] > form > button')->click();
        $this->seeIn('.batch-head', 'Met');
        $this->seeIn('main', 'This batch has ended.');
        self::assertSame(['Met'], $this->worded('.batch-head span.v-met'));
        $this->assertTheCommandAgrees(['cook' => 'met', 'rest' => 'met']);
    }

    public function testALinkIsCopiedByItsButton(): void
    {
        $this->logIn('dell');
        // Somebody of its own: who is invited again has no password any more.
        $person = $this->column(
            "WITH p AS (INSERT INTO person (id, login, password) VALUES (gen_random_uuid(), 'copied', '') RETURNING id)
             INSERT INTO account (id, site_id, person_id, name, initials, role)
             SELECT gen_random_uuid(), s.id, p.id, 'Copied', 'CO', 'crew' FROM site s, p LIMIT 1 RETURNING id",
        )[0];
        $this->open("/people/$person");
        $this->send($this->button('New link'));
        $link = $this->find('[data-link]')->getText();
        self::assertStringContainsString('/welcome/', $link);
        $this->button('Copy the link')->click();
        $this->seeIn('main button [role=status]', 'Copied');
        // What is pasted is what was copied.
        $this->browser->executeScript(
            "const field = document.createElement('input'); field.id = 'pasted';"
            ."document.querySelector('main').append(field); field.focus();",
        );
        $this->find('#pasted')->sendKeys(WebDriverKeys::CONTROL.'v');
        $this->until(fn (): bool => $this->find('#pasted')->getAttribute('value') === $link);
        self::assertSame($link, $this->find('#pasted')->getAttribute('value'));
    }

    public function testACoolingIsFollowedToItsGates(): void
    {
        $this->logIn();
        $this->begin('Turkey breast', '52');
        foreach (
            [
                '52 cook 300 convection -300',
                '52 168 T1 -200',
                '52 cool ice bath -190',
                '52 140 T1 -190',
                '52 120 T1 -170',
            ] as $line
        ) {
            $this->type($line, sure: true);
        }
        $this->openTag(52);
        $this->seeIn('[data-rule="cool.stage1"]', 'is not documented');
        $this->type('52 66 T1 -80', sure: true);
        $this->openTag(52);
        $this->seeIn('[data-rule="cool.stage1"][data-verdict=met]', 'Reached 70 °F in time: 1 h 50 min');
        $this->seeIn('[data-rule="cool.total"]', 'Must reach 41 °F by');
        self::assertCount(2, $this->browser->findElements(WebDriverBy::cssSelector('svg[role=group] .p-post-flag')));
        $this->seeIn('figcaption', 'fell below 135° between');
    }

    public function testAHalfTypedEntrySurvivesARefreshAndALostConnection(): void
    {
        $this->logIn();
        $this->find('#line')->sendKeys('7.2 fla');
        $this->browser->navigate()->refresh();
        $this->until(fn (): bool => $this->find('#line')->getAttribute('value') === '7.2 fla');
        // The board keeping itself current leaves the line alone.
        $this->browser->executeAsyncScript(
            <<<'JS'
                const done = arguments[0];
                const root = document.querySelector('[data-source]');
                document.activeElement.blur();
                fetch(root.dataset.source).then((answer) => answer.text()).then((html) => {
                    root.innerHTML = html;
                    done();
                });
                JS,
        );
        self::assertSame('7.2 fla', $this->find('#line')->getAttribute('value'));
    }

    public function testEverythingCanBeDoneByKeyboardAlone(): void
    {
        $this->logIn();
        $keys = $this->browser->getKeyboard();
        $keys->sendKeys('l');
        self::assertSame('line', $this->browser->switchTo()->activeElement()->getAttribute('id'));
        $keys->sendKeys('7 172 T1');
        $this->seeIn('#echo', 'Tag 7, Lamb shoulder · piece 1, core · 172 °F · T1 · now');
        $keys->sendKeys(WebDriverKeys::ENTER);
        $this->seeIn('main [role=status]', '172 °F');
        // Due next: the first thing by Tab and Enter; then the readings of its picture by arrow keys.
        for ($tab = 0; $tab < 40 && $this->active('closest("[data-due]")') !== true; ++$tab) {
            $keys->sendKeys(WebDriverKeys::TAB);
        }
        $keys->sendKeys(WebDriverKeys::ENTER);
        $this->seeIn('h1', 'Pork loin');
        for ($tab = 0; $tab < 150 && $this->active('matches("[data-reading]")') !== true; ++$tab) {
            $keys->sendKeys(WebDriverKeys::TAB);
        }
        $keys->sendKeys(WebDriverKeys::ARROW_RIGHT);
        $this->seeIn('figcaption', '131 °F');
    }

    public function testTheCookSideIsWorkedByKeyboardAlone(): void
    {
        $this->logIn('ike');
        $keys = $this->browser->getKeyboard();
        // At the door: the supplier's field has the cursor; the rest by Tab.
        $this->open('/receiving/new');
        $keys->sendKeys('North Fork Poultry');
        foreach (['', '', 'Turkey breast', 'NF-990', '2', '6.2', '', '37.5', 'T1', 'walk-in'] as $typed) {
            $keys->sendKeys(WebDriverKeys::TAB);
            if ($typed !== '') {
                $keys->sendKeys($typed);
            }
        }
        $keys->sendKeys(WebDriverKeys::ENTER);
        $this->seeIn('main', 'The delivery is saved.');
        $this->seeIn('main', 'NF-990');

        // At the pit: a number, then the button that says what it is.
        $this->open('/pits');
        $this->follow('main li a[href*="/pits/"]');
        $keys->sendKeys('248');
        $this->tabTo('value="reading"');
        $keys->sendKeys(WebDriverKeys::ENTER);
        $this->seeIn('main', 'Reading 248 °F');

        // From the lot onto that pit, and round its pieces.
        $this->open('/batches/new');
        (new WebDriverSelect($this->find('[name=lot]')))->selectByIndex(1);
        $this->begun('71', 'Drum');
        $this->openTag(71);
        $this->follow('a[href$="/check"]');
        $this->find('[name=temp]:focus');
        $keys->sendKeys('39.5');
        $keys->sendKeys(WebDriverKeys::ENTER);
        $this->seeIn('h1', '2 of');
        $this->openTag(71);
        $this->seeIn('#everything', 'in Drum');
        $this->seeIn('#everything', '39.5 °F');
        $this->seeIn('[data-rule=receiving]', 'Met');
    }

    public function testALongListIsNarrowedAndSorted(): void
    {
        $this->logIn();
        $this->open('/products');
        $this->find('#sieve')->sendKeys('turkey');
        $this->until(fn (): bool => !$this->find('[data-row]')->isDisplayed() && $this->rows() !== []);
        foreach ($this->rows() as $row) {
            self::assertStringContainsString('urkey', $row);
        }
        $this->find('#sieve')->clear()->sendKeys('no such thing');
        $this->seeIn('main [role=status]', 'Try fewer words');
        $this->find('#sieve')->clear()->sendKeys('beef');
        $first = $this->rows();
        $this->find('th .sort')->click();
        $this->find('th .sort')->click();
        $this->find('th[aria-sort=descending]');
        self::assertSame(array_reverse($first), $this->rows());
    }

    /** @return list<string> the first cells of the rows in sight */
    private function rows(): array
    {
        $rows = $this->browser->executeScript(
            "return [...document.querySelectorAll('[data-row]')].filter((row) => !row.hidden)"
            .'.map((row) => row.cells[0].innerText)',
        );

        return array_values(array_filter(\is_array($rows) ? $rows : [], \is_string(...)));
    }

    public function testLoggingAndReadingNeedNoScript(): void
    {
        $this->restartWithoutScript();
        $this->logIn();
        $this->find('#line')->sendKeys('7.3 168 T1')->submit();
        $this->seeIn('main [role=status]', 'piece 3, core · 168 °F · T1');
        $this->find('[data-due] a')->click();
        $this->find('svg[role=group] [data-reading]');
        $this->follow('main a[href$="/steps"]');
        $this->button('Record: discarded');
    }

    public function testTheBoardCountsDownAndKeepsItselfCurrent(): void
    {
        $this->logIn();
        foreach (['late' => -600, 'in 1 h 2 min' => 3725] as $says => $seconds) {
            $this->browser->executeScript(
                "document.querySelectorAll('[data-deadline]').forEach((node) => "
                ."{ node.dataset.deadline = Math.floor(Date.now() / 1000) + $seconds; })",
            );
            $this->seeIn('[data-due] [data-deadline]', $says);
        }
    }

    private function begun(string $tag, string $pit): void
    {
        $this->find('[name=tag]')->clear()->sendKeys($tag);
        $this->find('[name=pieces]')->clear()->sendKeys('1');
        $this->find('[name=start][value=cook]')->sendKeys(WebDriverKeys::SPACE);
        (new WebDriverSelect($this->find('[name=pit]')))->selectByVisibleText($pit);
        $this->find('[name=tag]')->sendKeys(WebDriverKeys::ENTER);
        $this->find('#everything');
    }

    private function follow(string $link): void
    {
        $path = $this->find($link)->getAttribute('href');
        self::assertIsString($path);
        $this->open($path);
    }

    private function tabTo(string $attribute): void
    {
        for ($tab = 0; $tab < 40 && !$this->active(\sprintf("matches('[%s]')", $attribute)); ++$tab) {
            $this->browser->getKeyboard()->sendKeys(WebDriverKeys::TAB);
        }
    }

    private function press(string ...$keys): void
    {
        foreach ($keys as $key) {
            $this->find("#pad [data-key='$key']")->click();
        }
    }

    private function active(string $question): bool
    {
        return (bool) $this->browser->executeScript("return Boolean(document.activeElement.$question)");
    }

    /** @return list<string> */
    private function worded(string $selector): array
    {
        return array_values(
            array_map(
                static fn ($element): string => trim($element->getText()),
                $this->browser->findElements(WebDriverBy::cssSelector($selector)),
            ),
        );
    }

    /** @param array<string, string> $rules */
    private function assertTheCommandAgrees(array $rules): void
    {
        self::assertSame(['met', $rules], [$this->ofTheCommand()['verdict'], $this->ofTheCommand()['rules_judged']]);
    }
}
