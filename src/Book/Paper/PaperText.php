<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Paper;

/** The text of a procedure as it is set: "## heading", "- point", and paragraphs between empty lines. */
final readonly class PaperText
{
    /** @return list<PaperBlock> */
    public static function blocks(string $body): array
    {
        $blocks = $lines = [];
        $is = '';
        foreach ([...explode("\n", str_replace("\r", '', $body)), ''] as $line) {
            $line = trim($line);
            [$kind, $text] = match (true) {
                $line === '' => ['', ''],
                str_starts_with($line, '## ') => ['heading', substr($line, 3)],
                str_starts_with($line, '- ') => ['points', substr($line, 2)],
                default => ['words', $line],
            };
            if ($lines !== [] && ($kind !== $is || $kind === 'heading')) {
                $blocks[] = new PaperBlock($is, $lines);
                $lines = [];
            }
            $is = $kind;
            if ($text !== '') {
                $lines[] = $text;
            }
        }

        return $blocks;
    }
}
