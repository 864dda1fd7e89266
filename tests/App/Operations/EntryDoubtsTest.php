<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use PHPUnit\Framework\Attributes\DataProvider;
use Verjuicer\Tests\App\KitchenTestCase;

/** What hardly can be is asked about once, and kept if it is right all the same. */
final class EntryDoubtsTest extends KitchenTestCase
{
    #[DataProvider('doubtful')]
    public function testAsksOnce(string $line, string $said): void
    {
        $this->logIn();
        $before = $this->number('SELECT count(*) FROM event');
        $page = $this->keep($line);
        self::assertStringContainsString($said, $page->filter('[role=alertdialog]')->text());
        self::assertSame($before, $this->number('SELECT count(*) FROM event'), 'it is not kept');
        $this->client->submit($page->selectButton('Yes, save it')->form());
        self::assertResponseRedirects();
        self::assertSame(
            $before + 1,
            $this->number('SELECT count(*) FROM event'),
            'You can try more than once. The entry is saved only once',
        );
    }

    /** @return iterable<string, array{string, string}> */
    public static function doubtful(): iterable
    {
        yield 'frozen, off the freezer' => ['5 -4', 'outside a freezer'];
        yield 'a jump' => ['7 74', 'This change since the last reading is bigger than meat can make'];
        yield 'a jump beside another spot of the piece' => [
            '7 bone 74',
            'This is too far from another reading of the same piece',
        ];
        yield 'the other unit' => ['7 79c', 'This kitchen uses °F'];
        yield 'before it began' => ['7 wrap foil 2026-11-20 10:00', 'This is before the first entry of the batch'];
        yield 'served while it was still read' => ['7 serve -60', 'There are later readings or steps in this batch'];
        yield 'packed while it is warm' => ['7 pack vacuum', 'The last reading is above the cold-holding limit'];
        yield 'a slip of the minutes, into another stage' => ['7 160 -345 because late', 'in an earlier stage'];
        yield 'more than two hours ago' => ['7 160 -125 because late', 'more than two hours ago'];
        yield 'a note says that it was pierced' => ['7 note studded with garlic', 'something went into the meat'];
        yield 'so does what it was seasoned with' => ['7 note cut slits for the rub', 'something went into the meat'];
        yield 'put into the cold while it is warm' => ['7 cold', 'The last reading is above the cold-holding limit'];
    }

    public function testEachPieceThatIsPutIntoTheColdCounts(): void
    {
        $this->logIn();
        $this->client->submit($this->keep('7.1 40')->selectButton('Yes, save it')->form());
        self::assertStringContainsString(
            'The last reading is above the cold-holding limit',
            $this->keep('7 cold')->filter('[role=alertdialog]')->text(),
            'the others are warm',
        );
        $this->keep('7.1 cold');
        self::assertResponseRedirects();
    }

    public function testAStepThatIsDoubtedComesBackWithAllThatWasTyped(): void
    {
        $this->logIn();
        $path = $this->path(7);
        $form = $this->client
            ->request('GET', $path.'/steps')
            ->filterXPath("//form[input[@name='type'][@value='discard']]")
            ->form();
        $page = $this->client->submit($form, ['weight_kg' => '400', 'reason' => 'fell']);
        self::assertStringContainsString(
            'This is more than remains of the batch',
            $page->filter('[role=alertdialog]')->text(),
        );
        $this->client->submit($page->selectButton('Yes, save it')->form());
        self::assertResponseRedirects($path);
        self::assertSame(
            '400',
            $this->words("SELECT members->>'weight_kg' FROM event WHERE type = 'discard' ORDER BY seq DESC LIMIT 1"),
        );
    }

    public function testAPartThatIsDiscardedLeavesTheRest(): void
    {
        $this->logIn();
        $this->keep('7 weigh 3 kg');
        $this->keep('7 discard 0.5 kg dropped');
        self::assertResponseRedirects();
        $this->client->request('GET', $this->path(7));
        self::assertResponseIsSuccessful('it is still open');
        self::assertSame(
            'discarded_part 0.5 dropped',
            $this->words(
                "SELECT members->>'step' || ' ' || (members->>'weight_kg') || ' ' || reason
                 FROM event ORDER BY seq DESC LIMIT 1",
            ),
        );
        $page = $this->keep('7 discard 2.6 kg');
        self::assertStringContainsString(
            'This is more than remains of the batch',
            $page->filter('[role=alertdialog]')->text(),
        );
        $this->keep('7 discard 2.5 kg');
        self::assertResponseRedirects();
        self::assertSame('discard', $this->words('SELECT type FROM event ORDER BY seq DESC LIMIT 1'), 'that is all');
    }

    public function testAReadingEnteredMoreThanAnHourLateNeedsAReason(): void
    {
        $this->logIn();
        $path = $this->path(7);
        $before = $this->number('SELECT count(*) FROM event');
        $page = $this->keep('7 160 -61');
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('min old', $page->filter('[role=alert]')->text());
        $form = $this->client->request('GET', $path.'/check')->filterXPath("//form[.//input[@name='from']]")->form();
        $this->client->submit($form, ['temp' => '160', 'when' => '-61']);
        self::assertSelectorTextContains('#problem-reason', 'min old');
        $form = $this->client
            ->request('GET', $this->path(28).'/steps')
            ->filterXPath("//form[input[@name='type'][@value='cook']]")
            ->form();
        $page = $this->client->submit($form, ['temp_on' => '39', 'when' => '-61']);
        self::assertSelectorTextContains('#problem-reason', 'min old');
        self::assertSame($before, $this->number('SELECT count(*) FROM event'));
        $again = $page->filterXPath("//form[input[@name='type'][@value='cook']]")->form();
        $this->client->submit($again, ['reason' => 'the card was in the truck']);
        self::assertSame(
            'the card was in the truck',
            $this->words("SELECT reason FROM event WHERE type = 'reading' ORDER BY seq DESC LIMIT 1"),
        );
        $this->keep('7 160 -59');
        self::assertResponseRedirects('/', message: 'not late yet');
    }

    public function testABatchRemembersItsUnit(): void
    {
        $this->logIn();
        $this->client->submit($this->keep('7 79c')->selectButton('Yes, save it')->form());
        $this->keep('7 80.5');
        self::assertResponseRedirects();
        self::assertSame(
            '80.5',
            $this->words("SELECT members->'temp'->>'c' FROM event WHERE type = 'reading' ORDER BY seq DESC LIMIT 1"),
        );
        $this->keep('7 178f');
        self::assertResponseRedirects();
        self::assertSame(
            '178',
            $this->words("SELECT members->'temp'->>'f' FROM event WHERE type = 'reading' ORDER BY seq DESC LIMIT 1"),
        );
    }

    public function testWordsThatAreNotKnownAreOfferedTheNearestAndASpotIsAddedOnPurpose(): void
    {
        $this->logIn();
        $page = $this->keep('7 bome 173');
        self::assertStringContainsString('"bome" is not a probe location', $page->filter('[role=alert]')->text());
        $this->client->submit($page->selectButton('bone')->form());
        self::assertResponseRedirects();
        self::assertSame(
            'bone',
            $this->words("SELECT members->>'spot' FROM event WHERE type = 'reading' ORDER BY seq DESC LIMIT 1"),
        );
        foreach (['bone 2', 'between bones 3-4', 'thin end'] as $spot) {
            $page = $this->keep('7 '.$spot.' 174');
            $this->client->submit($page->selectButton('New probe location "'.$spot.'"')->form());
            self::assertResponseRedirects(null, null, $spot);
            self::assertSame(
                $spot,
                $this->words("SELECT members->>'spot' FROM event WHERE type = 'reading' ORDER BY seq DESC LIMIT 1"),
            );
            $this->keep('7 '.$spot.' 175');
            self::assertResponseRedirects(null, null, 'from then on it is known');
        }
        self::assertStringContainsString(
            'no thermometer "t9"',
            $this->keep('7 flat t9 174')->filter('[role=alert]')->text(),
        );
        self::assertSelectorNotExists('button[name=new_spot]', 'a label is never a spot');
        self::assertStringContainsString(
            '"wrp" is not a word of the log line',
            $this->keep('7 wrp foil')->filter('[role=alert]')->text(),
        );
        $this->client->submit($this->keep('7 wrp foil')->selectButton('wrap')->form());
        self::assertSame(
            'foil',
            $this->words("SELECT members->>'with' FROM event WHERE type = 'wrap' ORDER BY seq DESC LIMIT 1"),
        );
    }
}
