<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Tests\App\KitchenTestCase;

/**
 * Spots that were read and left, and a probe that was in the wrong place for hours: what became of them is said once.
 */
final class MisplacedProbeTest extends KitchenTestCase
{
    public function testASpotThatWasLeftIsAskedAboutAndCountsNoMoreOnceItIsSaidWhatBecameOfIt(): void
    {
        $path = $this->brisket();
        foreach (['71 flat 92 -180', '71 point 150 -120', '71 point 201 -20'] as $line) {
            $this->keep($line.' because the card lay at the pit', isSure: true);
            self::assertResponseRedirects(null, null, $line);
        }
        self::assertSame(['1/flat', '1/point'], $this->tracks());
        $page = $this->client->request('GET', $path);
        self::assertStringContainsString(
            'flat: 92 °F at 11:00, no later reading',
            $page->filter('section[aria-labelledby=left]')->text(),
        );
        self::assertStringContainsString(
            'line=71%20flat%20',
            (string) $page->selectLink('Check again')->attr('href'),
        );
        $form = $page->selectButton('Its readings no longer count')->form();
        $page = $this->client->submit($form, ['reason' => ' ']);
        self::assertSelectorExists('section[aria-labelledby=left] details[open] #problem-reason');
        self::assertSame(['1/flat', '1/point'], $this->tracks(), 'not without a reason');
        $this->client->submit(
            $page->selectButton('Its readings no longer count')->form(['reason' => 'it hung beside the meat']),
        );
        self::assertResponseRedirects($path);
        self::assertSame(['1/point'], $this->tracks(), 'its readings no longer count for the cook');
        $page = $this->client->followRedirect();
        self::assertSelectorNotExists('section[aria-labelledby=left]');
        self::assertStringContainsString('it was in the wrong place', $page->filter('#everything')->text());
        self::assertStringContainsString('it hung beside the meat', $page->filter('#everything')->text());
    }

    public function testWhatAMisplacedProbeReadIsTakenBackByOneEntryAndShownAsOne(): void
    {
        $path = $this->brisket();
        foreach ([240 => 70, 180 => 96, 120 => 130, 60 => 158, 20 => 203] as $minutes => $degrees) {
            $this->keep("71 point $degrees -$minutes because the card lay at the pit", isSure: true);
        }
        $page = $this->client->request('GET', $path.'/doubted');
        $form = $page
            ->selectButton('Void these readings')
            ->form(['track' => '1/point', 'from' => '2 h', 'to' => '5 h', 'reason' => 'it sat in the fat seam']);
        $page = $this->client->submit($form);
        self::assertSelectorTextContains('#problem-to', 'The end is before the start');
        $before = $this->number('SELECT count(*) FROM event');
        $this->client->submit($page->selectButton('Void these readings')->form(['from' => '181', 'to' => '59']));
        self::assertResponseRedirects($path);
        self::assertSame($before + 3, $this->number('SELECT count(*) FROM event'), 'a correction of each');
        $rows = $this->client
            ->followRedirect()
            ->filterXPath("//table[@id='everything']//tr[contains(., 'it sat in the fat seam')]");
        self::assertStringContainsString('3 readings of point from 11:00 to 13:00 voided', $rows->eq(0)->text());
        self::assertCount(4, $rows, 'one line for all, and each reading struck');
        $page = $this->client->request('GET', $path.'/doubted');
        $again = ['track' => '1/point', 'from' => '181', 'to' => '59', 'reason' => 'again'];
        $this->client->submit($page->selectButton('Void these readings')->form($again));
        self::assertSelectorTextContains('#problem-from', 'There is no reading at that probe location in this time');
    }

    /** Begun five hours ago, straight onto the heat. */
    private function brisket(): string
    {
        $this->logIn();
        $page = $this->client->request('GET', '/batches/new');
        $brisket = (string) $page->filter('option:contains("Beef brisket")')->attr('value');
        $page = $this->client->submit(
            $page->selectButton('Start batch')->form([
                'product' => $brisket,
                'tag' => '71',
                'pieces' => '1',
                'temp' => '38.5',
                'start' => 'cook',
                'when' => '5 h',
            ]),
        );
        $page = $this->client->submit(
            $page->selectButton('Start batch')->form(['reason' => 'the card lay at the pit']),
        );
        $this->client->submit($page->selectButton('Start batch')->form(['sure' => '1']));
        self::assertResponseRedirects();

        return $this->path(71);
    }

    /** @return list<string> of the cook rule */
    private function tracks(): array
    {
        $tracks = [];
        foreach ($this->service(Assessments::class)->of($this->batch(71))->findings as $finding) {
            if ($finding->rule === 'cook' && $finding->track !== null && $finding->verdict !== Verdict::NotShown) {
                $tracks[] = $finding->track;
            }
        }
        sort($tracks);

        return $tracks;
    }
}
