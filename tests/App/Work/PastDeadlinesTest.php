<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Work;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\DomCrawler\Crawler;
use Verjuicer\Tests\App\KitchenTestCase;

/** What is past is told as past: no sentence tells a cook to do what can no longer be done. */
final class PastDeadlinesTest extends KitchenTestCase
{
    /**
     * @param list<string> $said
     * @param list<string> $unsaid
     */
    #[DataProvider('batches')]
    public function testNobodyIsToldToDoWhatCanNoLongerBeDone(int $tag, array $said, array $unsaid): void
    {
        $this->logIn();
        $text = $this->client->request('GET', $this->path($tag))->filter('main')->text();
        foreach ($said as $one) {
            self::assertStringContainsString($one, $text);
        }
        foreach ($unsaid as $one) {
            self::assertStringNotContainsString($one, $text);
        }
    }

    /** @return iterable<string, array{int, list<string>, list<string>}> */
    public static function batches(): iterable
    {
        yield 'both gates long past' => [
            24,
            [
                '70 °F was due by 05:20. That time is over.',
                '41 °F was due by 09:20. That time is over.',
                'No reading can show it any more',
            ],
            [
                'Split it',
                'ice bath now',
                'starting again, once, is possible',
                'Read it by',
                'Only a reheat before it ends',
            ],
        ];
        yield 'a gate that is still ahead' => [
            12,
            ['Use an ice bath or a blast chiller now', 'Read it by'],
            ['That time is over', 'No reading can show it any more'],
        ];
    }

    public function testThatNothingCanShowItIsNoActionSomebodyTook(): void
    {
        $this->logIn();
        $page = $this->client->request('GET', $this->path(24));
        self::assertSame(
            ['Throw it away.'],
            array_values(
                array_unique(
                    $page->filter('#actions button[name=text]')->each(static fn (Crawler $one): string => $one->text()),
                ),
            ),
        );
        self::assertStringContainsString('The person in charge decides', $page->filter('#actions')->text());
    }
}
