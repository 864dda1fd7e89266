<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Proof;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Proof\PageText;

/** The text of pages, from PDFs built by hand as weasyprint builds them. */
final class PageTextTest extends TestCase
{
    public function testGlyphsBecomeTextPageByPageWithoutWhiteSpace(): void
    {
        self::assertSame(['7·shown', 'fi41°F'], PageText::of(self::pdf()));
    }

    /** @param \Closure(string): string $alter */
    #[DataProvider('others')]
    public function testWhatIsBuiltOtherwiseHasNoText(\Closure $alter): void
    {
        self::assertNull(PageText::of($alter(self::pdf())));
    }

    /** @return iterable<string, array{\Closure(string): string}> */
    public static function others(): iterable
    {
        $replace = static fn (string $what, string $by): \Closure => static fn (string $pdf): string => str_replace(
            $what,
            $by,
            $pdf,
        );
        yield 'nothing' => [static fn (): string => ''];
        yield 'another format' => [static fn (): string => "GIF89a\n1 0 obj\n"];
        yield 'a page that is defined again' => [
            static fn (string $pdf): string => $pdf."\n4 0 obj\n<<\n/Type /Page\n/Contents 9 0 R\n>>\nendobj\n",
        ];
        yield 'two roots' => [static fn (string $pdf): string => $pdf."trailer\n<< /Root 9 0 R >>\n"];
        yield 'a font without its characters' => [$replace('/ToUnicode', '/Other')];
        yield 'a damaged stream' => [$replace("stream\n\x78", "stream\n\x00")];
        yield 'no fonts' => [$replace('/Font 7 0 R', '/Pattern 7 0 R')];
    }

    public function testAPageTreeMayBeEmpty(): void
    {
        self::assertSame([], PageText::of(str_replace('/Kids [ 3 0 R 4 0 R ]', '/Kids [ ]', self::pdf())));
    }

    public static function pdf(): string
    {
        $stream = static fn (string $content, bool $isPacked = true): string => \sprintf(
            "<<\n%s/Length %d\n>>\nstream\n%s\nendstream",
            $isPacked ? "/Filter /FlateDecode\n" : '',
            \strlen($packed = $isPacked ? (string) gzcompress($content) : $content),
            $packed,
        );
        $page = "<<\n/Type /Page\n/Parent 2 0 R\n/Contents %d 0 R\n/Resources 10 0 R\n>>";
        $objects = [
            1 => "<<\n/Type /Catalog\n/Pages 2 0 R\n>>",
            2 => "<<\n/Type /Pages\n/Kids [ 3 0 R 4 0 R ]\n/Count 2\n>>",
            3 => \sprintf($page, 5),
            4 => \sprintf($page, 6),
            5 => $stream("BT\n/ABC 12.5 Tf\n[<0001>-3<0002>] TJ\n[<0003>12<00040005>] TJ\nET"),
            6 => $stream("BT\n/ABC 8 Tf\n[<0006000200070008>] TJ\nET", false),
            7 => "<<\n/ABC 8 0 R\n>>",
            8 => "<<\n/Type /Font\n/ToUnicode 9 0 R\n>>",
            9 => $stream(
                "9 beginbfchar\n<0001> <0037>\n<0002> <0020>\n<0003> <00b7>\n<0004> <00730068006f>\n"
                ."<0005> <0077006e>\n<0006> <00660069>\n<0007> <00340031>\n<0008> <00b00046>\nendbfchar",
                false,
            ),
            10 => "<<\n/Font 7 0 R\n>>",
        ];
        $pdf = "%PDF-1.7\n";
        foreach ($objects as $number => $object) {
            $pdf .= "\n$number 0 obj\n$object\nendobj\n";
        }

        // The catalogue is defined once more with the attachments.
        return $pdf."trailer\n<< /Root 1 0 R >>\n\n1 0 obj\n<<\n/AF [ ]\n/Pages 2 0 R\n>>\nendobj\n"
            ."trailer\n<< /Root 1 0 R >>\n";
    }
}
