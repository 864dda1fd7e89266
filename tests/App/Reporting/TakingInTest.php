<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Reporting;

use PHPUnit\Framework\Attributes\DataProvider;
use Verjuicer\App\Reporting\Exchange\RecordImport;
use Verjuicer\Tests\App\KitchenTestCase;

/** Records of others are taken in whole, at the cost of one entry, and what they claim stands beside them. */
final class TakingInTest extends KitchenTestCase
{
    public function testManyReadingsCostNoMoreStatementsThanOne(): void
    {
        $by = $this->logIn('dell');
        $import = $this->service(RecordImport::class);
        $counts = [];
        foreach ([0, 1, 2, 400] as $readings) {
            $record = self::record("COUNT-$readings", $readings);
            $counts[$readings] = $this->statements(
                static fn () => self::assertSame(1, $import->import($record, $by, false)->new),
            );
        }
        self::assertSame($counts[1], $counts[2]);
        self::assertLessThanOrEqual($counts[1] + 1, $counts[400], 'a long record is abridged by one more');
        self::assertSame(
            400,
            $this->number(
                'SELECT count(*) FROM event e JOIN batch b ON b.id = e.batch_id '
."WHERE b.code = 'COUNT-400' AND type = 'reading'",
            ),
        );
    }

    #[DataProvider('refused')]
    public function testWhatCannotBeIsRefusedWithItsLine(string $from, string $to, string $why): void
    {
        $by = $this->logIn('dell');
        $text = self::record('GOOD', 2)."\n".str_replace($from, $to, self::record('WRONG', 2));
        $report = $this->service(RecordImport::class)->import($text, $by, false);
        self::assertSame(2, $report->refused[0]['line'] ?? null, $report->refused[0]['why'] ?? '');
        self::assertStringContainsString($why, $report->refused[0]['why']);
        self::assertSame(
            0,
            $this->number("SELECT count(*) FROM batch WHERE code IN ('GOOD', 'WRONG')"),
            'all of a file or nothing of it',
        );
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function refused(): iterable
    {
        yield 'ahead of now' => ['2026-11-20T08:02:00Z', '2026-11-25T08:02:00Z', 'ahead of now'];
        yield 'pieces' => ['"pieces":1', '"pieces":501', 'pieces'];
        yield 'no code' => ['"code":"WRONG",', '', 'code is missing'];
        yield 'the code of another line' => ['"WRONG"', '"GOOD"', 'same batch code'];
        yield 'a temperature' => ['"f":172', '"f":"hot"', '/batch/events/2/temp/f'];
    }

    private static function record(string $code, int $readings): string
    {
        $at = static fn (int $minute): string => gmdate(
            'Y-m-d\TH:i:s\Z',
            strtotime('2026-11-20T08:00:00Z') + 60 * $minute,
        );
        $events = [
            [
                'id' => 'cook',
                'at' => $at(0),
                'by' => 'MR',
                'type' => 'cook',
                'oven' => 'convection',
                'set' => ['f' => 250],
            ],
        ];
        for ($one = 1; $one <= $readings; ++$one) {
            $events[] = [
                'id' => "r$one",
                'at' => $at($one),
                'by' => 'MR',
                'type' => 'reading',
                'temp' => ['f' => 170 + ($one % 3)],
                'spot' => 'core',
            ];
        }
        $events[] = ['id' => 'end', 'at' => $at(500), 'by' => 'MR', 'type' => 'close'];

        return json_encode(
            [
                'format' => 'verjuicer-record/1',
                'site' => ['timezone' => 'America/Denver', 'unit' => 'F'],
                'rules' => 'us-food-code-2022',
                'batch' => [
                    'code' => $code,
                    'product' => ['animal' => 'lamb', 'form' => 'roast', 'integrity' => 'intact', 'pieces' => 1],
                    'events' => $events,
                ],
            ],
            \JSON_THROW_ON_ERROR,
        );
    }
}
