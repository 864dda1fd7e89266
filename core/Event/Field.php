<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event;

/** One field of a kind of event. */
final readonly class Field
{
    /**
     * @param string $name in the open format: `depth_mm`
     * @param string $parameter of the constructor: `depthMm`
     * @param class-string<\BackedEnum>|null $choices the values of a choice
     * @param bool $isRequired whether there is no event without it
     */
    public function __construct(
        public string $name,
        public string $parameter,
        public FieldType $type,
        public ?string $choices,
        public bool $isRequired,
        public mixed $default,
        public FieldOptions $says,
    ) {
    }

    /** @return list<\BackedEnum> the values of a choice that are offered, none of any other type */
    public function offered(): array
    {
        if ($this->says->input === FieldInput::Carried) {
            return []; // not chosen in the interface
        }

        return $this->says->among !== [] || $this->choices === null ? $this->says->among : $this->choices::cases();
    }

    /** The value of a choice that a word of the open format is. */
    public function choice(string $word): ?\BackedEnum
    {
        return $this->choices === null ? null : $this->choices::tryFrom($word);
    }

    /** Whether its whole number is a length in millimeters. */
    public function isLength(): bool
    {
        return str_ends_with($this->name, '_mm');
    }

    public function isOurs(): bool
    {
        return $this->says->isOurs;
    }
}
