<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

/** Records in the open format, one a line or one alone, read one after another as often as they are asked for. */
final readonly class RecordLines
{
    private const MARK = "\xEF\xBB\xBF"; // of UTF-8, which some programs write before all else

    /** @param string|null $path of a file; else the text itself is read */
    private function __construct(private ?string $path, private string $text)
    {
    }

    public static function ofText(string $text): self
    {
        return new self(null, $text);
    }

    public static function ofFile(string $path): self
    {
        return new self($path, '');
    }

    /** @return \Generator<int, string> by the number of the line */
    public function all(): \Generator
    {
        $handle = $this->path === null ? null : fopen($this->path, 'r');
        if ($handle === false) {
            return;
        }
        $number = 0;
        $alone = '';
        $isAlone = null;
        foreach ($handle === null ? $this->cut() : $this->read($handle) as $line) {
            ++$number;
            $line = $number === 1 && str_starts_with($line, self::MARK) ? substr($line, \strlen(self::MARK)) : $line;
            if (trim($line) === '') {
                continue;
            }
            // A record that is written over several lines is the only one.
            $isAlone ??= !str_ends_with(rtrim($line), '}');
            if ($isAlone) {
                $alone .= $line."\n";
            } else {
                yield $number => $line;
            }
        }
        if ($isAlone === true) {
            yield 1 => $alone;
        }
    }

    /** @return \Generator<int, string> */
    private function cut(): \Generator
    {
        $from = 0;
        $length = \strlen($this->text);
        while ($from < $length) {
            $end = strpos($this->text, "\n", $from);
            $end = $end === false ? $length : $end;
            yield rtrim(substr($this->text, $from, $end - $from), "\r");
            $from = $end + 1;
        }
    }

    /**
     * @param resource $handle
     *
     * @return \Generator<int, string>
     */
    private function read($handle): \Generator
    {
        while (($line = fgets($handle)) !== false) {
            yield rtrim($line, "\r\n");
        }
        fclose($handle);
    }
}
