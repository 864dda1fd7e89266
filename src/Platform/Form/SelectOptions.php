<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Form;

use Symfony\Component\Uid\Uuid;
use Symfony\Contracts\Translation\TranslatorInterface;
use Twig\Attribute\AsTwigFilter;

/** The options of a select: value to words, in the order given. */
final readonly class SelectOptions
{
    public function __construct(private TranslatorInterface $translator)
    {
    }

    /**
     * Chosen by id, told by name.
     *
     * @param iterable<object{id: Uuid, name: string}> $things
     *
     * @return array<string, string>
     */
    #[AsTwigFilter('by_id')]
    public function byId(iterable $things): array
    {
        $choices = [];
        foreach ($things as $thing) {
            $choices[$thing->id->toRfc4122()] = $thing->name;
        }

        return $choices;
    }

    /**
     * Chosen by the very words they are told by.
     *
     * @param iterable<string|object{name: string}> $things
     *
     * @return array<string, string>
     */
    #[AsTwigFilter('by_name')]
    public function byName(iterable $things): array
    {
        $choices = [];
        foreach ($things as $thing) {
            $name = \is_string($thing) ? $thing : $thing->name;
            $choices[$name] = $name;
        }

        return $choices;
    }

    /**
     * Values of an enum, or plain words, told by their translation.
     *
     * @param iterable<string|\BackedEnum> $values
     * @param string $key of the translation, with `*` for the value
     *
     * @return array<string, string>
     */
    #[AsTwigFilter('worded')]
    public function worded(iterable $values, string $key): array
    {
        $choices = [];
        foreach ($values as $value) {
            $word = (string) ($value instanceof \BackedEnum ? $value->value : $value);
            $choices[$word] = $this->translator->trans(str_replace('*', $word, $key));
        }

        return $choices;
    }
}
