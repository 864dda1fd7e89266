<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

/** An open batch as the keypad knows it. */
final readonly class KeypadTag implements \JsonSerializable
{
    /**
     * @param list<int> $pieces it holds; none where it is one piece, or one mass
     * @param list<string> $spots it is read at
     * @param string $stage it is in: by it the keypad knows what is likely next
     * @param float|null $least degrees of the site it must not be under where it is held hot
     * @param float|null $most degrees it must not be over where it is held cold
     */
    public function __construct(
        public int $tag,
        public string $product,
        public array $pieces,
        public array $spots,
        public string $stage,
        public ?float $least = null,
        public ?float $most = null,
    ) {
    }

    /** @return array<string, mixed> what is not nothing: a page has it for every batch */
    public function jsonSerialize(): array
    {
        $all = [
            'product' => $this->product,
            'pieces' => $this->pieces,
            'spots' => $this->spots,
            'stage' => $this->stage,
            'least' => $this->least,
            'most' => $this->most,
        ];

        return array_filter($all, static fn (mixed $value): bool => $value !== null && $value !== []);
    }
}
