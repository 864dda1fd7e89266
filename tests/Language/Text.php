<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Language;

/** One text of a catalogue, without its placeholders, as a reader meets it. */
final readonly class Text
{
    /** Parts of the interface that a cook uses at the pit; all else is read by managers. */
    private const CREW = [
        'action', 'alarm', 'batch', 'board', 'clock', 'cook', 'cooling', 'correction', 'due', 'entry', 'event', 'fall',
        'hothold', 'label', 'left', 'limit', 'lot', 'mix', 'new', 'outage', 'pending', 'pit', 'portion', 'receiving',
        'reminder', 'resume', 'round', 'rule', 'stale', 'step', 'tap', 'verdict', 'whatif', 'when', 'who', 'zone',
    ];
    private const PAPERS = ['packet', 'paper', 'day', 'recall'];

    public function __construct(public string $domain, public string $key, public string $written)
    {
    }

    /** "crew", "manager", "paper". */
    public function group(): string
    {
        $part = strtok($this->key, '.');

        return match (true) {
            $this->domain === 'papers' => 'paper',
            $this->domain === 'findings' || \in_array($part, self::CREW, true) => 'crew',
            \in_array($part, self::PAPERS, true) => 'paper',
            default => 'manager',
        };
    }

    /** The part of the interface it belongs to: "board", "findings". */
    public function page(): string
    {
        return $this->domain === 'messages' ? (string) strtok($this->key, '.') : $this->domain;
    }

    /** @return list<string> names of its arguments */
    public function arguments(): array
    {
        $typed = ',\s*(?:plural|select|selectordinal|number|date|time)\b';
        // A branch of a plural is in braces as well: {count, plural, one {piece} other {pieces}}.
        $branch = $this->isPlural() ? '(?<!one |other |many |few |=\d |=\d\d )' : '';
        preg_match_all('/'.$branch.'\{([a-z_]\w*)\s*(?:\}|'.$typed.')/i', $this->written, $found);

        return array_values(array_unique($found[1]));
    }

    /** @return list<string> its sentences; a label without a full stop is none */
    public function sentences(): array
    {
        $sentences = [];
        foreach ($this->variants() as $variant) {
            $plain = (string) preg_replace(['/[*_#`]+/', '/\{[^{}]*\}/', '/^[|-].*$/m'], ['', '5', ''], $variant);
            foreach ((array) preg_split('/(?<=[.!?])\s+|:\s+|\n+/', $plain) as $one) {
                $one = (string) $one;
                if (\count(Reading::words($one)) >= 4 && preg_match('/[.!?]"?$/', trim($one)) === 1) {
                    $sentences[] = trim($one);
                }
            }
        }

        return $sentences;
    }

    /** @return list<string> what it can say: each branch of a plural by itself */
    public function variants(): array
    {
        if (!$this->isPlural()) {
            return [$this->written];
        }
        preg_match_all('/(?:=\d+|one|few|many|other|\w+) \{((?:[^{}]|\{[^{}]*\})*)\}/', $this->written, $found);

        return array_map(static fn (string $one): string => str_replace('#', '{count}', $one), $found[1]);
    }

    private function isPlural(): bool
    {
        return preg_match('/\{\w+, (?:plural|select),/', $this->written) === 1;
    }
}
