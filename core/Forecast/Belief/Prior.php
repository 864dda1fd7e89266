<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Belief;

use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\NamedCut;
use Verjuicer\Core\Record\RecordedProduct;
use Verjuicer\Core\Thermal\Composition;

/** Assumptions about a piece before any reading: thickness, roundness, composition. */
final readonly class Prior
{
    private const DENSITY = 1_055.0; // kg/m³
    private const USUAL_GRAMS = 2500.0;
    /** Of how far pieces of other batches are apart, how far those of one are. */
    private const ALIKE = 0.6;

    /**
     * @param float $half m from the middle to the surface, the likeliest
     * @param float $spread of its logarithm
     * @param float $ball m, the half thickness if it were a ball: nothing is thicker
     * @param bool $isMeasured whether the thickness was measured
     * @param bool $isRound whether it is a cylinder, as sausages are
     * @param bool $hasSkin whether most of it lies beneath skin, as birds do
     * @param bool $isWeighed whether the weight is known, so that a thick piece is not wide
     * @param array<int, array{float, float}> $likely prior knowledge of unknowns, in standard normal numbers: mean and
     *     spread, 1 as usual
     */
    private function __construct(
        public float $half,
        public float $spread,
        public float $ball,
        public Composition $composition,
        private bool $isMeasured,
        public bool $isWeighed,
        public bool $isRound,
        public bool $hasSkin,
        public array $likely = [],
    ) {
    }

    /**
     * @param float|null $thickness m, if measured
     * @param int|null $portion g, of a portion split off by weight
     */
    public static function of(RecordedProduct $product, ?float $thickness, ?int $portion = null): self
    {
        $grams = (float) max(20, $portion ?? $product->rawWeight?->grams() ?? self::USUAL_GRAMS);
        $isWeighed = $portion !== null || $product->rawWeight !== null;
        $ball = ((3 * $grams) / (4 * \M_PI * 1000 * self::DENSITY)) ** (1 / 3);
        $cut = NamedCut::of($product->name);
        $composition = $cut->isMarbled() ? Composition::marbled() : Composition::lean();
        $isRound = $cut === NamedCut::Sausage;
        $hasSkin = $product->form === Form::WholeBird;
        if ($thickness !== null) {
            $half = $thickness / 2;

            return new self($half, 0.08, max($ball, $half), $composition, true, $isWeighed, $isRound, $hasSkin);
        }
        // Of the ball's radius: racks are flat, birds are hollow, shoulders are nearly round.
        [$share, $spread] = match (true) {
            $cut === NamedCut::BeefRibs => [0.34, 0.28],
            $cut === NamedCut::Ribs => [0.2, 0.34],
            \in_array($cut, [NamedCut::Brisket, NamedCut::Belly, NamedCut::Flat], true) => [0.42, 0.22],
            $hasSkin => [0.46, 0.19],
            $isRound => [0.55, 0.17],
            default => [0.63, 0.16],
        };

        $spread = $isWeighed ? $spread : 0.45;

        return new self($share * $ball, $spread, $ball, $composition, false, $isWeighed, $isRound, $hasSkin);
    }

    /** As a kitchen's own cooks teach. */
    public function learned(LearnedParameters $learned): self
    {
        $unknowns = $learned->unknowns;
        if ($this->isMeasured || !$this->isWeighed) {
            unset($unknowns[ParameterSample::HALF], $unknowns[ParameterSample::SHAPE]);
        }

        return $this->known($unknowns);
    }

    /**
     * The prior of a piece with a better-known neighbour: same pit, similar meat.
     *
     * @param array<int, array{float, float}> $likely normal numbers, and how much of each was said, by unknown
     */
    public function beside(array $likely): self
    {
        $known = $this->likely;
        foreach ($likely as $unknown => [$number, $said]) {
            $apart = sqrt(1.0 - $said * (1.0 - self::ALIKE ** 2));
            $known[$unknown] = [$number, $apart * ($known[$unknown][1] ?? 1.0)];
        }

        return $this->known($known);
    }

    /** A normal number as it would be if nothing were known beforehand. */
    public function plain(int $unknown, float $number): float
    {
        [$likely, $spread] = $this->likely[$unknown] ?? [0.0, 1.0];

        return $likely + $spread * $number;
    }

    /** @param array<int, array{float, float}> $likely */
    private function known(array $likely): self
    {
        return new self(
            $this->half,
            $this->spread,
            $this->ball,
            $this->composition,
            $this->isMeasured,
            $this->isWeighed,
            $this->isRound,
            $this->hasSkin,
            $likely,
        );
    }
}
