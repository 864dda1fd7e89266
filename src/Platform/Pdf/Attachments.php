<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Pdf;

/**
 * Attaches files to a PDF as PDF/A-3 asks for it (ISO 19005-3, 6.8): by an incremental update with each file, its
 * relation to the document, and the identifier of the document.
 */
final class Attachments
{
    private const TRAILER = '/trailer\s*<<\s*\/Size (\d+)\s*\/Root (\d+) 0 R\s*\/Info (\d+) 0 R.*?>>'
        .'\s*startxref\s*(\d+)\s*%%EOF\s*$/sD';

    /**
     * @param string $pdf with a cross-reference table, as weasyprint writes it
     * @param list<array{name: string, type: string, description: string, content: string}> $files plain names
     *
     * @throws \UnexpectedValueException where the document is of another shape
     */
    public static function add(string $pdf, array $files, \DateTimeImmutable $made): string
    {
        if (preg_match(self::TRAILER, substr($pdf, -4096), $part) !== 1) {
            throw new \UnexpectedValueException('The PDF has another trailer than expected.');
        }
        [$size, $root, $info, $before] = array_map(intval(...), \array_slice($part, 1));
        $objects = $specs = $names = [];
        $next = $size;
        foreach ($files as $file) {
            [$stream, $spec] = [$next++, $next++];
            $objects[$stream] = self::stream($file['content'], $file['type'], $made);
            $name = $file['name'];
            $objects[$spec] = "<< /Type /Filespec /F ($name) /UF ($name) /Desc ({$file['description']}) "
                ."/AFRelationship /Data /EF << /F $stream 0 R >> >>";
            $specs[] = "$spec 0 R";
            $names[] = "({$file['name']}) $spec 0 R";
        }
        $tree = $next++;
        $objects[$tree] = '<< /Names ['.implode(' ', $names).'] >>';
        $objects[$root] = self::catalogue($pdf, $root, $tree, $specs);
        $id = hash('md5', $pdf);

        return rtrim($pdf)."\n".self::update(
            $objects,
            \strlen(rtrim($pdf)) + 1,
            "/Size $next /Root $root 0 R /Info $info 0 R /ID [<$id> <$id>] /Prev $before",
        );
    }

    private static function stream(string $content, string $type, \DateTimeImmutable $made): string
    {
        $packed = (string) gzcompress($content);
        $size = \strlen($content);
        $length = \strlen($packed);
        $subtype = str_replace('/', '#2F', $type);
        $date = $made->setTimezone(new \DateTimeZone('UTC'))->format('YmdHis').'Z';

        return "<< /Type /EmbeddedFile /Subtype /$subtype /Filter /FlateDecode "
            ."/Params << /Size $size /ModDate (D:$date) >> /Length $length >>\nstream\n$packed\nendstream";
    }

    /** @param list<string> $specs */
    private static function catalogue(string $pdf, int $root, int $tree, array $specs): string
    {
        $start = strrpos($pdf, "\n$root 0 obj");
        $end = $start === false ? false : strpos($pdf, 'endobj', $start);
        if ($start === false || $end === false) {
            throw new \UnexpectedValueException('The PDF has no catalogue where its trailer says so.');
        }
        $catalogue = trim(substr($pdf, $start + \strlen("\n$root 0 obj"), $end - $start - \strlen("\n$root 0 obj")));
        $files = "/EmbeddedFiles $tree 0 R";
        $named = preg_replace('/\/Names\s*<</', "/Names << $files ", $catalogue, 1, $count);
        if ($count === 0) {
            $named = substr_replace($catalogue, "<< /Names << $files >> ", 0, 2);
        }

        return substr_replace((string) $named, '<< /AF ['.implode(' ', $specs).'] ', 0, 2);
    }

    /** @param array<int, string> $objects by number */
    private static function update(array $objects, int $offset, string $trailer): string
    {
        ksort($objects);
        $body = $table = '';
        foreach ($objects as $number => $object) {
            $table .= \sprintf("%d 1\n%010d 00000 n \n", $number, $offset + \strlen($body) + 1);
            $body .= "\n$number 0 obj\n$object\nendobj\n";
        }
        $start = $offset + \strlen($body);

        return $body."xref\n{$table}trailer\n<< $trailer >>\nstartxref\n$start\n%%EOF\n";
    }
}
