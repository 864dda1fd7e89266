<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\FieldType;
use Verjuicer\Core\Event\Kind;
use Verjuicer\Core\Event\LinePhrase;

/** The words of the log line, in the language of the page, and in English: what follows a tag and is no temperature. */
final readonly class LineWords
{
    public function __construct(private TranslatorInterface $translator)
    {
    }

    /** @return array{Kind, LinePhrase}|null what a word begins */
    public function verb(string $word): ?array
    {
        foreach (EventKinds::all() as $kind) {
            foreach ($kind->declared->sayings as $saying) {
                if (\in_array(mb_strtolower($word), $this->words('verb.'.$saying->key), true)) {
                    return [$kind, $saying];
                }
            }
        }

        return null;
    }

    /** @return list<string> every word that begins a step */
    public function verbs(): array
    {
        $verbs = [];
        foreach (EventKinds::all() as $kind) {
            foreach ($kind->declared->sayings as $saying) {
                array_push($verbs, ...$this->words('verb.'.$saying->key));
            }
        }

        return $verbs;
    }

    /** @return array{string, \BackedEnum}|null the field of a kind that a word is a choice of, and the choice */
    public function choice(Kind $kind, string $word): ?array
    {
        foreach ($kind->fields as $field) {
            foreach ($field->offered() as $choice) {
                if (
                    \in_array(mb_strtolower($word), $this->words('choice.'.$field->name.'.'.$choice->value), true)
                ) {
                    return [$field->name, $choice];
                }
            }
        }

        return null;
    }

    /** @return array{string, \BackedEnum}|null the choice whose own words these are, as forms show them */
    public function chosen(Kind $kind, string $words): ?array
    {
        foreach ($kind->fields as $field) {
            foreach ($field->offered() as $choice) {
                $shown = $this->translator->trans('event.'.$field->name.'.'.$choice->value);
                if (mb_strtolower($shown) === mb_strtolower($words)) {
                    return [$field->name, $choice];
                }
            }
        }

        return null;
    }

    /** The flag of a kind that a word sets. */
    public function flag(Kind $kind, string $word): ?string
    {
        foreach ($kind->fields as $field) {
            if (
                $field->type === FieldType::Flag
                && \in_array(mb_strtolower($word), $this->words('flag.'.$field->name), true)
            ) {
                return $field->name;
            }
        }

        return null;
    }

    /** Whether a word is said for one that joins what is before it to what follows: "because", "with", "every". */
    public function isSaid(string $key, string $word): bool
    {
        return \in_array(mb_strtolower($word), $this->words('said.'.$key), true);
    }

    /** @return list<string> the words for something, in lower case */
    public function said(string $key): array
    {
        return $this->words('said.'.$key);
    }

    /** Whether a word is one of those for a unit, or for what is counted. */
    public function isUnit(string $unit, string $word): bool
    {
        return \in_array(mb_strtolower($word), $this->words('unit.'.$unit), true);
    }

    /** What is usual in a field goes by its key, in whatever language it was said. */
    public function usual(Kind $kind, string $field, string $words): string
    {
        foreach ($kind->fields[$field]->says->usual as $usual) {
            $isSaid = \in_array(mb_strtolower($words), $this->words('usual.'.$usual), true);
            if ($isSaid || mb_strtolower($words) === mb_strtolower($this->translator->trans('event.usual.'.$usual))) {
                return $usual;
            }
        }

        return $words;
    }

    /** As it is shown on a form: what is usual in the words of the language. */
    public function shown(Kind $kind, string $field, string $words): string
    {
        $isUsual = \in_array($words, $kind->fields[$field]->says->usual, true);

        return $isUsual ? $this->translator->trans('event.usual.'.$words) : $words;
    }

    /** @return list<string> in lower case; none where the line has no word for it */
    private function words(string $key): array
    {
        $words = [];
        // The English ones are understood in every language: they stand on cards and in people's fingers.
        foreach (array_unique([$this->translator->getLocale(), 'en']) as $language) {
            $said = $this->translator->trans($key, domain: 'line', locale: $language);
            array_push($words, ...$said === $key ? [] : explode(' ', mb_strtolower($said)));
        }

        return array_values(array_unique($words));
    }
}
