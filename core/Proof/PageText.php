<?php

declare(strict_types=1);

namespace Verjuicer\Core\Proof;

/**
 * The text of each page of a packet, read from its content streams (ISO 32000-1, 9.4 and 9.10.3) and without white
 * space, which depends on the layout. It reads PDFs as weasyprint writes them and no others.
 */
final readonly class PageText
{
    /** The same in any language: its \s is not. */
    private const WHITE = '/[\t-\r \x{a0}\x{2000}-\x{200a}\x{2028}\x{2029}\x{202f}\x{205f}\x{3000}]+/u';

    /** @param array<int, list<int>> $places offsets behind "N 0 obj", by object number */
    private function __construct(private string $pdf, private array $places)
    {
    }

    /** @return list<string>|null UTF-8 text by page; null if the file is built otherwise, or defines an object twice */
    public static function of(string $pdf): ?array
    {
        preg_match_all('/\n(\d{1,9}) 0 obj\n/', $pdf, $found, \PREG_OFFSET_CAPTURE | \PREG_SET_ORDER);
        $places = [];
        foreach ($found as [[$marker, $offset], [$number]]) {
            $places[(int) $number][] = $offset + \strlen($marker);
        }
        try {
            return (new self($pdf, $places))->pages();
        } catch (\UnexpectedValueException) {
            return null;
        }
    }

    /** Text without white space. */
    public static function bare(string $text): string
    {
        return (string) preg_replace(self::WHITE, '', $text);
    }

    /**
     * @return list<string>
     *
     * @throws \UnexpectedValueException
     */
    private function pages(): array
    {
        preg_match_all('/\/Root (\d+) 0 R/', $this->pdf, $roots);
        $root = array_unique($roots[1]);
        $catalogue = \count($root) === 1 ? $this->places[(int) $root[0]] ?? [] : [];
        // The catalogue alone is defined twice: once more for the attachments.
        $tree = array_unique(array_map(
            fn (int $place): int => self::reference('Pages', $this->dictionary($place)),
            $catalogue,
        ));
        if (\count($tree) !== 1) {
            throw new \UnexpectedValueException('One page tree was expected.');
        }
        preg_match('/\/Kids \[([ \dR]*)\]/', $this->object($tree[0]), $kids);
        preg_match_all('/(\d+) 0 R/', $kids[1] ?? '', $pages);

        return array_map(fn (string $page): string => $this->page((int) $page), $pages[1]);
    }

    private function page(int $number): string
    {
        $page = $this->object($number);
        $resources = $this->object(self::reference('Resources', $page));
        $fonts = $this->object(self::reference('Font', $resources));
        $characters = [];
        $text = '';
        preg_match_all(
            '/\/(\S+) [\d.]+ Tf$|\[([^\]]*)\] TJ$/m',
            $this->stream(self::reference('Contents', $page)),
            $shown,
            \PREG_SET_ORDER,
        );
        $font = '';
        foreach ($shown as $one) {
            if (!isset($one[2])) {
                $font = $one[1] ?? '';
                $characters[$font] ??= $this->characters(self::reference($font, $fonts));
                continue;
            }
            preg_match_all('/<([0-9a-f]*)>/', $one[2], $strings);
            foreach (str_split(implode('', $strings[1]), 4) as $glyph) {
                $text .= $characters[$font][$glyph] ?? '';
            }
        }

        return self::bare($text);
    }

    /** @return array<array-key, string> text by glyph, four hexadecimal digits */
    private function characters(int $font): array
    {
        preg_match_all(
            '/^<([0-9a-f]{4})> <((?:[0-9a-f]{4})+)>$/m',
            $this->stream(self::reference('ToUnicode', $this->object($font))),
            $pairs,
            \PREG_SET_ORDER,
        );
        $characters = [];
        foreach ($pairs as [, $glyph, $units]) {
            $characters[$glyph] = mb_convert_encoding((string) hex2bin($units), 'UTF-8', 'UTF-16BE');
        }

        return $characters;
    }

    private function stream(int $number): string
    {
        $dictionary = $this->object($number);
        if (preg_match('/\/Length (\d+)\n?>>$/D', $dictionary, $length) !== 1) {
            throw new \UnexpectedValueException("Object $number is no stream.");
        }
        $start = $this->places[$number][0] + \strlen($dictionary) + \strlen("\nstream\n");
        $content = substr($this->pdf, $start, (int) $length[1]);
        if (!str_contains($dictionary, '/FlateDecode')) {
            return $content;
        }
        $inflated = @gzuncompress($content);

        return $inflated === false ? throw new \UnexpectedValueException("Stream $number is damaged.") : $inflated;
    }

    /** The part of an object before its stream or end. */
    private function object(int $number): string
    {
        $places = $this->places[$number] ?? [];

        return \count($places) === 1
            ? $this->dictionary($places[0])
            : throw new \UnexpectedValueException("Object $number is defined ".\count($places).' times.');
    }

    private function dictionary(int $place): string
    {
        $end = strpos($this->pdf, "\nendobj", $place);
        $stream = strpos($this->pdf, "\nstream\n", $place);
        $end = min($end === false ? \PHP_INT_MAX : $end, $stream === false ? \PHP_INT_MAX : $stream);

        return substr($this->pdf, $place, $end - $place);
    }

    private static function reference(string $name, string $dictionary): int
    {
        if (preg_match('/\/'.preg_quote($name, '/').'\s+(\d+) 0 R/', $dictionary, $part) !== 1) {
            throw new \UnexpectedValueException("A reference to $name was expected.");
        }

        return (int) $part[1];
    }
}
