<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Platform;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\App\Platform\Pdf\Attachments;
use Verjuicer\Core\Proof\PacketTail;

/** Files behind a PDF, as an incremental update that a reader of PDFs finds its way through. */
final class AttachmentsTest extends TestCase
{
    private const FILES = [
        ['name' => 'proof.ndjson', 'type' => 'application/x-ndjson', 'description' => 'proof', 'content' => "{}\n"],
        ['name' => 'records.ndjson', 'type' => 'application/x-ndjson', 'description' => 'records', 'content' => ''],
    ];

    #[DataProvider('catalogues')]
    public function testEachFileIsFoundUnderItsName(string $catalogue, string $kept): void
    {
        $pdf = self::pdf($catalogue);
        $with = Attachments::add($pdf, self::FILES, new \DateTimeImmutable('2026-11-24 21:00:00 UTC'));
        self::assertTrue(str_starts_with($with, rtrim($pdf)), 'what was there stays, byte for byte');
        foreach (self::FILES as $file) {
            self::assertSame($file['content'], PacketTail::attached($with, $file['name']));
        }
        self::assertNull(PacketTail::attached($with, 'other.txt'));
        self::assertStringContainsString('/AFRelationship /Data', $with);
        self::assertStringContainsString('D:20261124210000Z', $with);
        preg_match_all('/\n3 0 obj\n(.*?)\nendobj/s', $with, $catalogues);
        $last = $catalogues[1][\count($catalogues[1]) - 1] ?? '';
        self::assertMatchesRegularExpression('/\/AF \[\d+ 0 R \d+ 0 R\]/', $last);
        self::assertStringContainsString($kept, $last, 'and what its catalogue said before');
        self::assertSame(1, substr_count($last, '/Names <<'));
    }

    /** @return iterable<string, array{string, string}> */
    public static function catalogues(): iterable
    {
        yield 'without names' => ['<< /Type /Catalog /Pages 1 0 R >>', '/Pages 1 0 R'];
        yield 'with names of places' => ['<< /Type /Catalog /Names << /Dests 5 0 R >> >>', '/Dests 5 0 R'];
    }

    public function testEveryObjectStandsWhereTheTableSays(): void
    {
        $with = Attachments::add(self::pdf('<< /Type /Catalog >>'), self::FILES, new \DateTimeImmutable());
        self::assertSame(1, preg_match('/startxref\n(\d+)\n%%EOF\n$/D', $with, $start));
        $table = substr($with, (int) ($start[1] ?? 0));
        self::assertStringStartsWith("xref\n", $table);
        preg_match_all('/^(\d+) 1\n(\d{10}) 00000 n $/m', $table, $rows, \PREG_SET_ORDER);
        self::assertCount(6, $rows, 'two a file, their names, and the catalogue');
        foreach ($rows as [, $number, $offset]) {
            self::assertSame("$number 0 obj\n", substr($with, (int) $offset, \strlen("$number 0 obj\n")));
        }
        self::assertMatchesRegularExpression('/\/Prev 9 >>/', $table, 'after the table before');
        self::assertMatchesRegularExpression('/\/ID \[<[0-9a-f]{32}> <[0-9a-f]{32}>\]/', $table);
    }

    public function testAFileThatIsNotOfThisShapeIsRefused(): void
    {
        foreach (['', 'no PDF', "%PDF-1.7\ntrailer\n<< /Root 3 0 R >>\nstartxref\n9\n%%EOF\n"] as $other) {
            try {
                Attachments::add($other, self::FILES, new \DateTimeImmutable());
                self::fail('took it');
            } catch (\UnexpectedValueException $problem) {
                self::assertStringContainsString('trailer', $problem->getMessage());
            }
        }
        $this->expectExceptionMessage('no catalogue');
        Attachments::add(str_replace('3 0 obj', '4 0 obj', self::pdf('<< >>')), self::FILES, new \DateTimeImmutable());
    }

    private static function pdf(string $catalogue): string
    {
        return "%PDF-1.7\n1 0 obj\n<< >>\nendobj\n3 0 obj\n$catalogue\nendobj\nxref\n0 1\n0000000000 65535 f \n"
            ."trailer\n<<\n/Size 6\n/Root 3 0 R\n/Info 2 0 R\n>>\nstartxref\n9\n%%EOF";
    }
}
