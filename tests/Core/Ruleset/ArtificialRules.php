<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Ruleset;

use Verjuicer\Core\Ruleset\RuleSet;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/**
 * A code of no country: built like the real one, with every number and every section different from every other and
 * from the real ones.
 */
final class ArtificialRules
{
    private const REAL = __DIR__.'/../../../rulesets/us-food-code-2022.json';

    /** @var array<string, true> */
    private array $used = [];

    private int $number = 0;

    private function __construct()
    {
    }

    /** @return array<string, mixed> as its file holds it */
    public static function data(): array
    {
        $real = self::real();
        $self = new self();
        $self->use($real);

        /** @var array<string, mixed> */
        return $self->changed($real);
    }

    /** @return array<string, mixed> the real one's file */
    public static function real(): array
    {
        $real = json_decode((string) file_get_contents(self::REAL), true, flags: \JSON_THROW_ON_ERROR);
        \assert(\is_array($real), 'a rule set is an object');

        /** @var array<string, mixed> */
        return $real;
    }

    /** Under the real one's name, so that whatever works by that works by these numbers. */
    public static function library(): RuleSetLibrary
    {
        $folder = sys_get_temp_dir().'/verjuicer-rules-'.getmypid();
        if (!is_dir($folder)) {
            mkdir($folder);
        }
        file_put_contents(
            $folder.'/us-food-code-2022.json',
            json_encode(self::data(), \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION),
        );

        return new RuleSetLibrary($folder);
    }

    public static function get(): RuleSet
    {
        return self::library()->get('us-food-code-2022');
    }

    /** @param array<array-key, mixed> $data */
    private function use(array $data): void
    {
        array_walk_recursive($data, function (mixed $value, int|string $name): void {
            if (\is_int($value) || \is_float($value)) {
                $this->used[$name.round($value, 1)] = true;
            }
        });
    }

    /**
     * @param array<array-key, mixed> $data
     *
     * @return array<array-key, mixed>
     */
    private function changed(array $data): array
    {
        foreach ($data as $name => $value) {
            $data[$name] = match (true) {
                \is_array($value) => $this->changed($value),
                $name === 'citation' => 'section '.++$this->number,
                $name === 'f', $name === 'c' => $this->unique($name, is_numeric($value) ? (float) $value : 0.0, 0.1),
                \is_int($value) && $value !== 0 => (int) $this->unique(
                    (string) $name,
                    $value,
                    $name === 'days' ? 1 : 60,
                ),
                default => $value,
            };
        }

        return $data;
    }

    /**
     * The nearest greater number that nothing else is; every later one of its kind is shifted farther, so that rows
     * stay in their order.
     */
    private function unique(string $name, float|int $value, float|int $step): float
    {
        do {
            $value = round($value + $step, 1);
        } while (isset($this->used[$name.$value]) || isset($this->used['any'.$value]));
        $this->used[$name.$value] = $this->used['any'.$value] = true;

        return $value;
    }
}
