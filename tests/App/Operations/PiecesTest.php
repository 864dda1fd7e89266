<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Chain\ChainVerifier;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Reporting\Exchange\RecordImport;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Record\Event;
use Verjuicer\Tests\App\KitchenTestCase;

/** Pieces that go their own ways: what is said of one piece is about that piece, and the rest goes on. */
final class PiecesTest extends KitchenTestCase
{
    public function testAPieceThatComesOffEarlierBecomesABatchOfItsOwnAtThatMoment(): void
    {
        $before = $this->verdicts($this->batch(7));
        $this->client->request('GET', '/log/echo', ['line' => '7.3 off rack -20']);
        self::assertStringContainsString(
            'Tag 7, Lamb shoulder · piece 3 becomes tag 73 · Rest · rack',
            $this->answer(),
        );
        $this->keep('7.3 off rack -20');
        self::assertResponseRedirects();
        [$shoulder, $third] = [$this->batch(7), $this->batch(73)];
        self::assertSame([[1, 2, 4], [3]], [$this->numbers($shoulder), $this->numbers($third)]);
        self::assertSame($before, $this->verdicts($shoulder), 'the rest is judged as it was');
        $records = $this->service(StoredRecords::class);
        self::assertSame('rest', $this->service(Assessments::class)->of($third)->timeline->stage()?->name());
        self::assertSame('cook', $this->service(Assessments::class)->of($shoulder)->timeline->stage()?->name());

        // What was written of the piece later, under either tag, is of it alone.
        $this->keep('7.3 158');
        $this->keep('73 157');
        $split = $third->begunAt->getTimestamp();
        $before = array_filter(
            $records->of($shoulder)->events,
            static fn (Event $event): bool => $event->at->epoch < $split,
        );
        self::assertSame(
            [],
            array_udiff(
                $before,
                $records->of($third)->events,
                static fn (Event $one, Event $other): int => $one->id <=> $other->id,
            ),
            'all before is shared',
        );
        // What had happened before it went, and is written down later, is of both.
        $this->keep('7 spritz -40');
        $has = static fn (Batch $batch): bool => \in_array(
            'spritz',
            array_map(static fn (Event $event): string => $event->kind()->name(), $records->of($batch)->events),
            true,
        );
        self::assertSame([true, true], [$has($shoulder), $has($third)]);
        // What happened since is not.
        $this->keep('7 rotate -10');
        self::assertNotContains(
            'rotate',
            array_map(static fn ($event): string => $event->kind()->name(), $records->of($third)->events),
        );
        self::assertNull(
            $this->service(ChainVerifier::class)->firstBreak($shoulder->site),
            'portions are in the chain',
        );
        $page = $this->client->request('GET', $this->path(73));
        self::assertStringContainsString('piece 3 · 2.3 kg', $page->filter('main')->text());
        self::assertStringContainsString(
            'piece 3',
            $this->client
                ->request('GET', $this->path(73).'/label')
                ->filter('main')
                ->text(),
        );
        self::assertStringContainsString(
            'pieces 1, 2, 4',
            $this->client->request('GET', $this->path(7))->filter('main')->text(),
        );
    }

    public function testARetryPartsOnceAndTheLastPieceIsTheBatchItself(): void
    {
        $this->logIn();
        $form = $this->client
            ->request('GET', '/log')
            ->filter('form[action="/log"]')
            ->form(['line' => '7.2 discard dropped']);
        $this->client->submit($form);
        $this->client->submit($form);
        self::assertResponseRedirects();
        self::assertSame(1, $this->number("SELECT count(*) FROM batch WHERE piece_numbers = '[2]'"));
        self::assertSame([1, 3, 4], $this->numbers($this->batch(7)));
        $this->keep('7.1 off');
        $this->keep('7.3 off');
        $this->keep('7.4 off');
        self::assertSame([4], $this->numbers($this->batch(7)), 'it is what is left');
        self::assertSame('rest', $this->service(Assessments::class)->of($this->batch(7))->timeline->stage()?->name());
        self::assertStringContainsString('no piece 9', $this->keep('7.9 off')->filter('[role=alert]')->text());
    }

    public function testAnEntryAPortionSharesIsCorrectedWhereItWasWrittenDown(): void
    {
        $this->keepAll('7.3 off rack -10');
        $path = $this->path(73);
        $row = $this->client
            ->request('GET', $path)
            ->filterXPath("//table[@id='everything']//tr[contains(., '161 °F')]");
        $page = $this->client->click($row->selectLink('Correct')->link());
        $this->client->submit(
            $page->selectButton('Save correction')->form(['temp' => '163', 'reason' => 'misread']),
        );
        self::assertResponseRedirects($path);
        foreach ([73, 7] as $tag) {
            self::assertStringContainsString(
                '163 °F',
                $this->client->request('GET', $this->path($tag))->filter('#everything')->text(),
            );
        }
    }

    public function testTakenBackAtOnceAPieceNeverWent(): void
    {
        $this->keepAll('7.3 off rack');
        $page = $this->client->followRedirect();
        $this->client->submit($page->selectButton('Undo')->form());
        self::assertResponseRedirects();
        self::assertNull($this->numbers($this->batch(7)), 'it holds all four again');
        self::assertSame(0, $this->number('SELECT count(*) FROM open_tag WHERE tag = 73'));
        $this->keepAll('7.3 162', '7.3 off rack');
        self::assertSame(
            [[1, 2, 4], [3]],
            [$this->numbers($this->batch(7)), $this->numbers($this->batch(73))],
            'and it can go again',
        );
        $this->keepAll('73 150');
        $page = $this->client->request('GET', $this->path(73));
        $row = $page->filterXPath("//table[@id='everything']//tr[contains(., 'Rest')]");
        $page = $this->client->click($row->selectLink('Correct')->link());
        $this->client->submit($page->selectButton('Void entry')->form(['reason' => 'it was not off']));
        self::assertSame([3], $this->numbers($this->batch(73)), 'what was read on its own stays on its own');
    }

    public function testAPieceThatWentItsOwnWayIsTakenInElsewhereWithTheSameVerdicts(): void
    {
        $this->keepAll('7.2 off rack', '72 151');
        $page = $this->path(72);
        $this->client->request('GET', $page.'/record.json');
        $record = json_decode((string) $this->client->getResponse()->getContent(), flags: \JSON_THROW_ON_ERROR);
        self::assertInstanceOf(\stdClass::class, $record);
        self::assertInstanceOf(\stdClass::class, $record->batch);
        [$record->batch->code, $record->batch->tag] = ['another-72', 500];
        foreach (\is_array($record->batch->events) ? $record->batch->events : [] as $index => $event) {
            self::assertInstanceOf(\stdClass::class, $event);
            $event->id = 'e'.$index;
        }
        $this->service(RecordImport::class)->import(
            (string) json_encode($record, \JSON_PRESERVE_ZERO_FRACTION),
            $this->logIn(),
            false,
        );
        self::assertSame($this->verdicts($this->batch(72)), $this->verdicts($this->batch(500)));
        self::assertSame([2], $this->numbers($this->batch(500)));
    }

    public function testDividesByPiecesInEveryStage(): void
    {
        $path = $this->path(7);
        $page = $this->client->request('GET', $path.'/divide');
        $form = $page
            ->selectButton('Split off pieces')
            ->form(['piece1' => '71', 'piece3' => '71', 'piece4' => '72', 'when' => '5']);
        $this->client->submit($form);
        self::assertResponseRedirects($path);
        $this->client->submit($form);
        self::assertSame(
            [[2], [1, 3], [4]],
            [$this->numbers($this->batch(7)), $this->numbers($this->batch(71)), $this->numbers($this->batch(72))],
        );
        $page = $this->client->request('GET', $path.'/divide');
        self::assertSelectorNotExists('form[action$="/divide/pieces"]', 'one piece is not divided by pieces');
        $check = $this->client
            ->request('GET', $this->path(71).'/check')
            ->filter('h1')
            ->text();
        self::assertStringContainsString(
            '1 of 4: piece 1, core',
            $check,
            'a portion asks for what it holds: two pieces, two spots',
        );
    }

    public function testWhatWasPulledIsReadAsAPan(): void
    {
        $this->keepAll('7.2 off -30', '72 pull -25', '72 190 -20');
        $this->client->request('GET', '/log/echo', ['line' => '72 188']);
        self::assertStringContainsString('pan · 188', $this->answer());
        self::assertStringContainsString('no piece 1', $this->keep('72.1 188')->filter('[role=alert]')->text());
        self::assertStringContainsString(
            '1 of 1: piece 2, pan?',
            $this->client
                ->request('GET', $this->path(72).'/check')
                ->filter('h1')
                ->text(),
        );
        self::assertStringContainsString(
            'pulled or chopped',
            $this->client->request('GET', $this->path(72))->filter('main')->text(),
        );
    }

    public function testSauceRubAndCostFollowWhatIsInThePortion(): void
    {
        $this->keepAll('7.3 off rack', '73 sauce Butter sauce');
        self::assertSame(
            '0.092',
            $this->words("SELECT members->>'weight_kg' FROM event WHERE type = 'sauce' ORDER BY seq DESC LIMIT 1"),
            '40 g on a kilogram, of the 2.3 kg that went',
        );
        $this->keepAll('73 serve 8 plates all');
        $id = $this->words("SELECT id::text FROM batch WHERE piece_numbers = '[3]'");
        $went =
            $this->client
                ->request('GET', '/batches/'.$id)
                ->filter('#went')
                ->closest('section')
                ?->text() ?? '';
        self::assertStringContainsString('Bought 2.32 kg', $went, 'a quarter of four pieces of 13.9 kg for six');
        self::assertStringContainsString('per portion (8 served)', $went);
    }

    public function testServingAPartDoesNotEndIt(): void
    {
        $this->keepAll('21 weigh 1.2 kg', '21 serve 0.2 kg', '21 serve 12 plates');
        $batch = $this->batch(21);
        self::assertSame('hot_hold', $this->service(Assessments::class)->of($batch)->timeline->stage()?->name());
        $page = $this->client->request('GET', $this->path(21));
        self::assertStringContainsString('served a part · 200 g', $page->filter('#everything')->text());
        self::assertStringContainsString('Served 200 g', $page->filter('#went')->closest('section')?->text() ?? '');
        self::assertStringContainsString(
            'This is more than remains of the batch',
            $this->keep('21 serve 40 kg')->filter('[role=alertdialog]')->text(),
        );
        self::assertStringContainsString(
            '": kg, g, lb, oz, or plates',
            $this->keep('21 serve 12')->filter('[role=alert]')->text(),
        );
        $this->keepAll('21 serve 1 kg');
        $this->logIn();
        self::assertSame(
            0,
            $this->number('SELECT count(*) FROM open_tag WHERE tag = 21'),
            'what is left was served: it ended',
        );
        $this->keepAll('7 serve 10 plates all');
        self::assertSame(
            0,
            $this->number('SELECT count(*) FROM open_tag WHERE tag = 7'),
            'somebody says that it was all',
        );
    }

    private function keepAll(string ...$lines): void
    {
        $this->logIn();
        foreach ($lines as $line) {
            $page = $this->keep($line);
            if ($this->client->getResponse()->getStatusCode() === 422) {
                $this->client->submit($page->selectButton('Yes, save it')->form());
            }
            self::assertResponseRedirects(null, null, $line);
        }
    }

    private function answer(): string
    {
        $answer = json_decode((string) $this->client->getResponse()->getContent(), true);

        return \is_array($answer) && \is_string($answer['sentence'] ?? null) ? $answer['sentence'] : '';
    }

    /** @return list<int>|null */
    private function numbers(Batch $batch): ?array
    {
        return $this->service(StoredRecords::class)->of($batch)->product->pieceNumbers;
    }

    /** @return array<string, Verdict> */
    private function verdicts(Batch $batch): array
    {
        return $this->service(Assessments::class)->of($batch)->rulesJudged;
    }
}
