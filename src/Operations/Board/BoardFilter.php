<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Board;

use Symfony\Component\HttpFoundation\Request;
use Verjuicer\App\Operations\Due\Due;
use Verjuicer\App\Projection\Lane\Lane;

/** What of the board somebody wants to see: one pit or place, or what one person has taken on. */
final readonly class BoardFilter
{
    /**
     * @param string $at a pit, or a place food is held in; '' for all
     * @param string $by initials; '' for all
     */
    private function __construct(public string $at, public string $by)
    {
    }

    public static function of(Request $request): self
    {
        return new self(
            mb_substr($request->query->getString('at'), 0, 80),
            mb_substr($request->query->getString('by'), 0, 8),
        );
    }

    public static function all(): self
    {
        return new self('', '');
    }

    public function isOn(): bool
    {
        return $this->at !== '' || $this->by !== '';
    }

    /** @return array<string, string> of an address */
    public function parameters(): array
    {
        return array_filter(['at' => $this->at, 'by' => $this->by], static fn (string $value): bool => $value !== '');
    }

    public function takes(Lane $lane): bool
    {
        return $this->at === '' || self::place($lane) === $this->at;
    }

    /**
     * @param list<Due> $dues
     * @param array<string, string> $claims initials, by batch id and rule
     *
     * @return list<Due>
     */
    public function dues(array $dues, array $claims): array
    {
        return $this->by === ''
            ? $dues
            : array_values(
                array_filter(
                    $dues,
                    fn (Due $due): bool => ($claims[$due->lane->batchId.$due->rule] ?? '') === $this->by,
                ),
            );
    }

    /**
     * What there is to choose from: how many batches are at each place, how many things each person has taken on.
     *
     * @param list<Lane> $lanes
     * @param array<string, string> $claims
     *
     * @return array{at: array<string, int>, by: array<string, int>}
     */
    public static function choices(array $lanes, array $claims): array
    {
        $places = array_count_values(
            array_filter(array_map(self::place(...), $lanes), static fn (string $place): bool => $place !== ''),
        );
        ksort($places);
        $open = array_fill_keys(array_map(static fn (Lane $lane): string => $lane->batchId, $lanes), true);
        $people = array_count_values(
            array_filter(
                $claims,
                static fn (string $key): bool => isset($open[substr($key, 0, 36)]),
                \ARRAY_FILTER_USE_KEY,
            ),
        );
        ksort($people);

        return ['at' => $places, 'by' => $people];
    }

    private static function place(Lane $lane): string
    {
        return $lane->pit ?? $lane->place ?? '';
    }
}
