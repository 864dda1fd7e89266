<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Belief;

/** Small symmetric positive definite matrices, as lower triangles. */
final readonly class Matrix
{
    /**
     * The root of a matrix: Cholesky's decomposition.
     *
     * @param array<int, array<int, float>> $of lower triangle
     *
     * @return array<int, array<int, float>> lower triangle
     */
    public static function root(array $of): array
    {
        $root = [];
        foreach ($of as $row => $columns) {
            foreach ($columns as $column => $sum) {
                for ($k = 0; $k < $column; ++$k) {
                    $sum -= $root[$row][$k] * $root[$column][$k];
                }
                $root[$row][$column] = $row === $column ? sqrt(max(1e-9, $sum)) : $sum / $root[$column][$column];
            }
        }

        return $root;
    }

    /**
     * Solves root · x = right: independent numbers made dependent.
     *
     * @param array<int, array<int, float>> $root
     * @param array<int, float> $right
     *
     * @return array<int, float>
     */
    public static function forward(array $root, array $right): array
    {
        foreach ($root as $row => $columns) {
            $sum = $right[$row];
            for ($column = 0; $column < $row; ++$column) {
                $sum -= $columns[$column] * $right[$column];
            }
            $right[$row] = $sum / $columns[$row];
        }

        return $right;
    }

    /**
     * root⁻ᵀ · right.
     *
     * @param array<int, array<int, float>> $root
     * @param array<int, float> $right
     *
     * @return array<int, float>
     */
    public static function backward(array $root, array $right): array
    {
        for ($row = \count($root) - 1; $row >= 0; --$row) {
            for ($below = $row + 1; $below < \count($root); ++$below) {
                $right[$row] -= $root[$below][$row] * $right[$below];
            }
            $right[$row] /= $root[$row][$row];
        }

        return $right;
    }
}
