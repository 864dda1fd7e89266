<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Packet;

use Verjuicer\Core\Assess\Finding\Finding;

/** A finding as the packet prints it: once, with every piece and probe location that it is true of. */
final class PacketFinding
{
    /** Its number in the list of deviations; null if it is none. */
    public ?int $deviation = null;

    /** @param list<string> $tracks such as "2/flat"; empty if it is of the whole batch */
    private function __construct(public readonly Finding $of, public readonly string $sentence, public array $tracks)
    {
    }

    /**
     * @param iterable<Finding> $findings
     * @param \Closure(Finding): string $say the sentence of a finding
     *
     * @return list<self> in the order of the findings
     */
    public static function grouped(iterable $findings, \Closure $say): array
    {
        $rows = [];
        foreach ($findings as $finding) {
            $sentence = $say($finding);
            $key = "$finding->rule\n{$finding->verdict?->value}\n$finding->citation\n$sentence";
            $rows[$key] ??= new self($finding, $sentence, []);
            if ($finding->track !== null) {
                $rows[$key]->tracks[] = $finding->track;
            }
        }

        return array_values($rows);
    }
}
