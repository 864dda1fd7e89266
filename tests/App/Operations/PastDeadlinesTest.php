<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

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
                '70 °F was due by 05:20. The time is up.',
                '41 °F was due by 09:20. The time is up.',
                'No reading can document it anymore',
            ],
            [
                'Do this now',
                'once. Then start cooling again',
                'Check the temperature by',
                'Only reheating in time, once',
            ],
        ];
        yield 'a gate that is still ahead' => [
            12,
            ['Do this now: ', 'Check the temperature by'],
            ['The time is up', 'No reading can document it anymore'],
        ];
    }

    public function testThatNothingCanShowItIsNoActionSomebodyTook(): void
    {
        $this->logIn();
        $page = $this->client->request('GET', $this->path(24));
        self::assertSame(
            ['Record as done: Discard it.'],
            array_values(
                array_unique(
                    $page->filter('#actions button[name=text]')->each(static fn (Crawler $one): string => $one->text()),
                ),
            ),
        );
        self::assertStringContainsString('The person in charge decides', $page->filter('#actions')->text());
    }
}
