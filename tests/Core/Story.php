<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Food\Treatment;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Reader;
use Verjuicer\Core\Record\Record;
use Verjuicer\Core\Ruleset\RuleSet;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/**
 * A record told in lines: "0 cook oven=convection set=325", "120:30 145.0", "121 63.0c p2 @flat T1", "130 serve".
 * Times are minutes and seconds after noon UTC of 2 May 2026; a number alone is a reading in °F.
 */
final class Story
{
    public const NOON = '2026-05-02T12:00:00Z';

    /** @var array<string, mixed> */
    private array $product = ['animal' => 'beef', 'form' => 'cut', 'integrity' => 'intact'];

    /** @var list<array<string, mixed>> */
    private array $thermometers = [];

    /** @var list<array<string, mixed>>|null what the site has in writing */
    private ?array $papers = null;

    private string $zone = 'America/Denver';

    private static ?RuleSetLibrary $library = null;

    /** @param list<string> $lines */
    private function __construct(private readonly array $lines)
    {
    }

    public static function of(string ...$lines): self
    {
        return new self(array_values($lines));
    }

    /**
     * @param string $product "turkey roast", "lamb roast 3.1kg 2pieces", "pork cut non_intact stuffed wild advisory",
     *     "pork roast cured"; "papers" where the site says what it has in writing, "paper:vacuum_pack:-10:60" for a
     *     procedure in force from one minute to another
     */
    public function about(string $product): self
    {
        $story = clone $this;
        $words = explode(' ', $product);
        $story->product = [
            'animal' => $words[0],
            'form' => $words[1],
            'integrity' => \in_array('non_intact', $words, true) ? 'non_intact' : 'intact',
        ];
        foreach (\array_slice($words, 2) as $word) {
            if (str_ends_with($word, 'kg')) {
                $story->product['raw_weight_kg'] = (float) $word;
            } elseif (str_ends_with($word, 'pieces')) {
                $story->product['pieces'] = (int) $word;
            } elseif (str_starts_with($word, 'paper')) {
                $story->papers = [...$story->papers ?? [], ...self::paper($word)];
            } elseif (Treatment::tryFrom($word) !== null) {
                $story->product['treatments'] = [$word];
            } elseif ($word !== 'non_intact') {
                $story->product[$word] = true;
            }
        }

        return $story;
    }

    /** With one more member of its product. */
    public function with(string $member, mixed $value): self
    {
        $story = clone $this;
        $story->product[$member] = $value;

        return $story;
    }

    /** @return list<array<string, mixed>> */
    private static function paper(string $word): array
    {
        [, $kind, $from, $to] = explode(':', $word) + ['', '', '', ''];

        $paper = [
            'kind' => $kind,
            'number' => 'P-1',
            'version' => 2,
            'from' => self::at($from)->rfc3339(),
        ] + ($to === '' ? [] : ['to' => self::at($to)->rfc3339()]);

        return $kind === '' ? [] : [$paper];
    }

    /** @param string ...$checks "-60 32.0 32.4": minutes, expected, read; in °C with a c behind each */
    public function withThermometer(string $id, string ...$checks): self
    {
        $story = clone $this;
        $story->thermometers[] = [
            'id' => $id,
            'checks' => array_map(static function (string $check): array {
                [$minutes, $expected, $read] = explode(' ', $check);

                return [
                    'at' => self::at($minutes)->rfc3339(),
                    'method' => 'ice',
                    'expected' => self::temperature($expected),
                    'read' => self::temperature($read),
                ];
            }, array_values($checks)),
        ];

        return $story;
    }

    public function in(string $zone): self
    {
        $story = clone $this;
        $story->zone = $zone;

        return $story;
    }

    public static function at(string $time): Instant
    {
        [$minutes, $seconds] = explode(':', $time) + [1 => '0'];

        return Instant::ofEpoch(Instant::parse(self::NOON)->epoch + 60 * (int) $minutes + (int) $seconds);
    }

    public function record(): Record
    {
        return self::reader()->read($this->json());
    }

    public function json(): string
    {
        return json_encode(
            [
                'format' => Reader::FORMAT,
                'site' => ['timezone' => $this->zone, 'unit' => 'F']
                    + ($this->papers === null ? [] : ['procedures' => $this->papers]),
                'rules' => 'us-food-code-2022',
                'thermometers' => $this->thermometers,
                'batch' => [
                    'code' => 'test',
                    'product' => $this->product,
                    'events' => array_map(self::event(...), $this->lines, array_keys($this->lines)),
                ],
            ],
            \JSON_THROW_ON_ERROR,
        );
    }

    public function assess(string $asOf): Assessment
    {
        return (new Assessor())->assess($this->record(), self::rules(), self::at($asOf));
    }

    /** @return array<string, string> the verdict of each rule judged, by name */
    public function verdicts(string $asOf): array
    {
        $verdicts = array_map(
            static fn (Verdict $verdict): string => $verdict->value,
            $this->assess($asOf)->rulesJudged,
        );
        ksort($verdicts);

        return $verdicts;
    }

    public static function rules(): RuleSet
    {
        return self::library()->get('us-food-code-2022');
    }

    public static function reader(): Reader
    {
        return new Reader(self::library());
    }

    public static function library(): RuleSetLibrary
    {
        return self::$library ??= new RuleSetLibrary(__DIR__.'/../../rulesets');
    }

    /** @return array<string, mixed> */
    private static function event(string $line, int $index): array
    {
        $words = explode(' ', $line);
        $event = ['id' => 'e'.$index, 'at' => self::at($words[0])->rfc3339(), 'by' => 'MR'];
        if (preg_match('/^-?\d/', $words[1]) === 1) {
            $event += ['type' => 'reading', 'temp' => self::temperature($words[1])];
        } else {
            $event['type'] = $words[1];
        }
        foreach (\array_slice($words, 2) as $word) {
            [$name, $value] = match (true) {
                preg_match('/^p\d+$/', $word) === 1 => ['piece', (int) substr($word, 1)],
                $word[0] === '@' => ['spot', substr($word, 1)],
                $word[0] === 'T' => ['thermometer', $word],
                default => explode('=', $word),
            };
            $event[(string) $name] = match (true) {
                \in_array($name, ['temp', 'set', 'around'], true) => self::temperature((string) $value),
                preg_match('/_kg$|_minutes$|^depth_mm$|^portions$/', (string) $name) === 1,
                str_starts_with((string) $value, '[') => json_decode((string) $value),
                $value === 'true' => true,
                default => \is_string($value) ? str_replace('+', ' ', $value) : $value,
            };
        }

        return $event;
    }

    /** @return array<string, float> */
    private static function temperature(string $written): array
    {
        return str_ends_with($written, 'c') ? ['c' => (float) $written] : ['f' => (float) $written];
    }
}
