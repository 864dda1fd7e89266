<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\HttpKernel\KernelInterface;
use Verjuicer\Tests\App\KitchenTestCase;

/**
 * What reaches the record is what was typed: no word is taken for another, no number is bent, and what a correction did
 * not touch stays.
 */
final class WhatIsTypedTest extends KitchenTestCase
{
    public function testACorrectionOfTheTimeKeepsTheAllergensOfTheLabel(): void
    {
        $path = $this->path(5);
        self::assertStringContainsString(
            'Contains wheat, soy',
            $this->client
                ->request('GET', $path.'/label')
                ->filter('main')
                ->text(),
        );
        $page = $this->correction($path, 'Orchard brine');
        $this->client->submit(
            $page->selectButton('Save correction')->form(['reason' => 'it was a minute earlier']),
        );
        self::assertResponseRedirects($path);
        self::assertStringContainsString(
            'Contains wheat, soy',
            $this->client
                ->request('GET', $path.'/label')
                ->filter('main')
                ->text(),
        );
        $kept =
            "SELECT (members - 'imported')::text FROM event "
."WHERE type = 'inject' AND members->>'recipe' = 'Orchard brine' ORDER BY seq";
        self::assertCount(
            2,
            array_unique(
                $this->connection()->fetchFirstColumn(
                    "SELECT id FROM event WHERE type = 'inject' AND members->>'recipe' = 'Orchard brine'",
                ),
            ),
        );
        self::assertCount(1, array_unique($this->connection()->fetchFirstColumn($kept)), 'nothing else changed');
    }

    public function testAnotherRecipeBringsItsOwnAllergensAndNoneBringsNone(): void
    {
        $path = $this->path(5);
        $page = $this->correction($path, 'Orchard brine');
        $page = $this->client->submit(
            $page
                ->selectButton('Save correction')
                ->form(['recipe' => 'Butter sauce', 'reason' => 'the other bottle']),
        );
        self::assertStringContainsString(
            'Contains milk, fish',
            $this->client
                ->request('GET', $path.'/label')
                ->filter('main')
                ->text(),
        );
        $page = $this->correction($path, 'Butter sauce');
        $this->client->submit(
            $page->selectButton('Save correction')->form(['recipe' => '', 'reason' => 'water only']),
        );
        self::assertStringContainsString(
            'Allergens not all known',
            $this->client
                ->request('GET', $path.'/label')
                ->filter('main')
                ->text(),
        );
    }

    public function testAReadingGoesToASpotTheProductHas(): void
    {
        $this->logIn();
        $page = $this->client->request('GET', '/batches/new');
        $this->client->submit(
            $page
                ->selectButton('Start batch')
                ->form([
                    'product' => (string) $page->filter('option:contains("Beef brisket")')->attr('value'),
                    'tag' => '71',
                    'pieces' => '2',
                    'temp' => '38.5',
                ]),
        );
        self::assertSame('flat', $this->spotOfLast(), 'the first reading');
        $this->keep('71 61');
        self::assertSame('flat', $this->spotOfLast(), 'the spot last read on that piece');
        $this->keep('71 point 62');
        $this->keep('71 63');
        self::assertSame('point', $this->spotOfLast(), 'the spot last read on that piece');
        $this->keep('71.2 60');
        self::assertSame('flat', $this->spotOfLast(), 'on a piece not read yet, the first of the product');
    }

    #[DataProvider('notUnderstood')]
    public function testAWordTheLineDoesNotKnowIsNotKept(string $line, string $said): void
    {
        $this->logIn();
        $before = $this->number('SELECT count(*) FROM event');
        $page = $this->keep($line);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString($said, $page->filter('[role=alert]')->text());
        self::assertSame($line, $page->filter('#line')->attr('value'), 'it is still there');
        self::assertSame($before, $this->number('SELECT count(*) FROM event'));
    }

    /** @return iterable<array{string, string}> */
    public static function notUnderstood(): iterable
    {
        yield ['7 polish -5', '"polish" is not a probe location of this product (core, bone)'];
        yield ['7 thick end 160', '"thick end" is not a probe location'];
        yield ['7 160 T9', 'There is no thermometer "t9"'];
        yield ['7 flat 160', '"flat" is not a probe location'];
    }

    /** @param array<string, string> $typed */
    #[DataProvider('badSteps')]
    public function testANumberThatDoesNotFitIsSaidAndEverythingTypedComesBack(
        int $tag,
        string $type,
        array $typed,
        string $said,
    ): void {
        $path = $this->path($tag);
        $form = $this->client
            ->request('GET', $path.'/steps')
            ->filterXPath("//form[input[@name='type'][@value='$type']]")
            ->form();
        $before = $this->number('SELECT count(*) FROM event');
        $page = $this->client->submit($form, $typed);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString($said, $page->filter('[role=alert]')->text());
        $back = $page->filterXPath("//details[@open]//form[input[@name='type'][@value='$type']]");
        foreach ($typed as $name => $value) {
            self::assertSame($value, $back->filter("[name=$name]")->attr('value'), $name);
        }
        self::assertSame($before, $this->number('SELECT count(*) FROM event'));
    }

    /** @return iterable<string, array{int, string, array<string, string>, string}> */
    public static function badSteps(): iterable
    {
        yield 'no depth' => [
            3,
            'cool',
            ['depth_mm' => '0', 'method' => 'shallow pans'],
            'Enter a depth such as 2 in or 5 cm, or leave it empty',
        ];
        yield 'a depth of metres' => [3, 'cool', ['depth_mm' => '999999999999'], 'Enter a length such as 2 in or 5 cm'];
        yield 'a depth in words' => [3, 'cool', ['depth_mm' => 'two'], 'Enter a length such as 2 in or 5 cm'];
        yield 'portions' => [3, 'serve', ['portions' => '0'], 'from 1 to 100,000'];
        yield 'when, left empty' => [
            3,
            'cool',
            ['when' => '', 'method' => 'the blue tub'],
            'Enter when it happened: now, 10 for ten minutes ago, 1 h 30, 14:05, or yesterday 22:10',
        ];
        yield 'when, in words' => [3, 'cool', ['when' => 'ten'], '"ten" is not a time'];
        yield 'when, ahead' => [3, 'cool', ['when' => '14:01'], 'is in the future'];
        yield 'when, in another age' => [3, 'cool', ['when' => '2016-11-01 10:00'], 'more than ten years ago'];
    }

    public function testWhenSomethingHappenedAtAPitOrToAThermometerIsAskedFor(): void
    {
        $this->logIn();
        foreach (
            [
                '/pits/'.$this->words("SELECT id::text FROM pit WHERE name = 'Drum'"),
                '/thermometers/'.$this->words("SELECT id::text FROM thermometer WHERE label = 'T1'"),
            ] as $path
        ) {
            $form = $this->client->request('GET', $path)->filterXPath("//main//form[.//*[@name='when']]")->form();
            foreach (['', 'soon', '14:01', '2016-11-01 10:00'] as $typed) {
                $page = $this->client->request(
                    'POST',
                    $path,
                    ['when' => $typed, 'sign' => 'fuel', 'read' => '32.0'] + $form->getValues(),
                );
                self::assertResponseStatusCodeSame(422);
                self::assertSelectorExists('#problem-when');
                self::assertSame($typed, $page->filter('[name=when]')->attr('value'));
            }
        }
    }

    public function testEverybodyWhoMayLogInMayLogOut(): void
    {
        foreach (['wynn', 'ike', 'dell', 'mara'] as $login) {
            $this->logIn($login);
            $page = $this->client->request('GET', '/');
            $this->client->submit($page->filter('form[action="/logout"]')->form());
            self::assertResponseRedirects('http://localhost/login', null, $login);
            $this->client->request('GET', '/');
            self::assertResponseRedirects('http://localhost/login', null, $login);
        }
    }

    public function testWhatIsCachedDoesNotGrow(): void
    {
        $this->logIn();
        $kernel = self::$kernel;
        self::assertInstanceOf(KernelInterface::class, $kernel);
        $count = static fn (): int => iterator_count(
            new \RecursiveIteratorIterator(
                new \RecursiveDirectoryIterator($kernel->getCacheDir().'/pools/app', \FilesystemIterator::SKIP_DOTS),
            ),
        );
        $this->client->request('GET', '/');
        $before = $count();
        for ($read = 0; $read < 4; ++$read) {
            $this->keep('7 '.(172 + $read));
            $this->client->request('GET', '/');
        }
        self::assertSame($before, $count(), 'a later state lies in the place of the earlier one');
    }

    private function correction(string $path, string $entry): Crawler
    {
        $row = $this->client
            ->request('GET', $path)
            ->filterXPath("//table[@id='everything']//tr[contains(., '$entry')][not(.//s)]")
            ->first();

        return $this->client->click($row->selectLink('Correct')->link());
    }

    private function spotOfLast(): string
    {
        return $this->words("SELECT members->>'spot' FROM event WHERE type = 'reading' ORDER BY seq DESC LIMIT 1");
    }
}
