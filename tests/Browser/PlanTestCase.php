<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverElement;

/** What tests of plans look for on their pages. */
abstract class PlanTestCase extends BrowserTestCase
{
    protected function schedule(string $plan): void
    {
        $this->open('/plans');
        $path = $this->browser->executeScript(
            'return [...document.querySelectorAll("main a")].find((link) => '
.'link.textContent.includes(arguments[0]))?.getAttribute("href")',
            [$plan],
        );
        self::assertIsString($path);
        $this->open($path);
        $this->find('[data-strip]');
    }

    protected function broken(): int
    {
        return substr_count($this->find('[data-part=schedule]')->getText(), '▲');
    }

    /** @return list<string> */
    protected function realTags(): array
    {
        return array_map(
            static fn (WebDriverElement $link): string => $link->getText(),
            $this->all('.strip-words a[href^="/batches/"]'),
        );
    }

    /** @return list<WebDriverElement> */
    protected function all(string $selector): array
    {
        return array_values($this->browser->findElements(WebDriverBy::cssSelector($selector)));
    }
}
