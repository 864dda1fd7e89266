<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

/** Some of the lines of a log, the latest first. */
final readonly class LogPage
{
    /** As many stand on the page of the batch itself. */
    private const FIRST = 40;
    private const MORE = 200;

    /**
     * @param list<LogRow> $rows
     * @param int $more how many come after them
     */
    private function __construct(public array $rows, public int $more)
    {
    }

    /**
     * @param list<LogRow> $all the latest of them
     * @param int $before how many more there are, before some of them
     */
    public static function first(array $all, int $before): self
    {
        return new self(\array_slice($all, 0, self::FIRST), max(0, \count($all) + $before - self::FIRST));
    }

    /**
     * @param list<LogRow> $all
     * @param string $after id of the last event before; from the first on, where there is none such
     */
    public static function of(array $all, string $after): self
    {
        $from = 0;
        foreach ($all as $place => $row) {
            if ($row->event->id === $after) {
                $from = $place + 1;
                break;
            }
        }

        return new self(\array_slice($all, $from, self::MORE), max(0, \count($all) - $from - self::MORE));
    }

    /** The id of the last event of it. */
    public function last(): string
    {
        return $this->rows === [] ? '' : $this->rows[\count($this->rows) - 1]->event->id;
    }
}
