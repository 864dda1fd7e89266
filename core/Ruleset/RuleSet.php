<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Measure\Threshold;

/** The numbers of one edition of one food code, complete from the moment it exists. */
final readonly class RuleSet
{
    /** @param array<class-string<RulePart>, RulePart> $parts all parts of its vocabulary, optional ones included */
    public function __construct(
        public string $id,
        public string $title,
        public string $authority,
        public string $edition,
        public string $checked,
        private array $parts,
    ) {
    }

    /**
     * @template T of RulePart
     *
     * @param class-string<T> $part
     *
     * @return T
     */
    public function get(string $part): RulePart
    {
        $found = $this->parts[$part];
        \assert($found instanceof $part, 'a rule set holds every part of its vocabulary');

        return $found;
    }

    /** Its part of a name, as a rule set file calls it; for templates, which know no classes. */
    public function part(string $key): RulePart
    {
        foreach ($this->parts as $part) {
            if ($part::key() === $key) {
                return $part;
            }
        }
        throw new \OutOfBoundsException(\sprintf('A rule set has no part "%s".', $key));
    }

    /** @return list<Threshold> every limit in any part of it */
    public function thresholds(): array
    {
        return self::thresholdsIn($this->parts);
    }

    /** @return non-empty-list<Interpretation> our readings of the code where it is silent; shown with the rule set */
    public function interpretations(): array
    {
        $limits = $this->limits();
        $rows = $this->get(CookingRules::class)->lowRoastRows;

        return [
            new Interpretation($limits->receivedFrozenInterpretation, $limits->receivedFrozen->threshold),
            new Interpretation($rows->interpretation, $rows->below),
        ];
    }

    public function limits(): Limits
    {
        return $this->get(Limits::class);
    }

    /** The same with house limits that a site has made stricter: no number of the code changes. */
    public function stricter(StricterLimits $own): self
    {
        return $own->isNone()
            ? $this
            : new self(
                $this->id,
                $this->title,
                $this->authority,
                $this->edition,
                $this->checked,
                [HouseLimits::class => $this->house()->stricter($own)] + $this->parts,
            );
    }

    public function house(): HouseLimits
    {
        return $this->get(HouseLimits::class);
    }

    /** @return list<Threshold> */
    private static function thresholdsIn(mixed $value): array
    {
        if ($value instanceof Threshold) {
            return [$value];
        }
        $found = [];
        // Private properties of a part are limits, too.
        foreach (\is_object($value) || \is_array($value) ? (array) $value : [] as $inner) {
            $found = [...$found, ...self::thresholdsIn($inner)];
        }

        return $found;
    }
}
