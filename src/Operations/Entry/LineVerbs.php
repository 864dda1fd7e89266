<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Psr\Cache\CacheItemPoolInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Translation\LocaleSwitcher;
use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\FieldType;
use Verjuicer\Core\Event\Kind;
use Verjuicer\Core\Event\LinePhrase;

/** The verbs of the log line as keys: which are likely next in a stage, and the words that say how. */
final class LineVerbs
{
    private const LIKELY = 4;

    /** @var array<string, list<string>> by stage */
    private array $likely = [];

    public function __construct(
        private readonly TranslatorInterface $translator,
        #[Autowire(service: 'cache.system')] private readonly CacheItemPoolInterface $cache,
        private readonly LocaleSwitcher $locale,
    ) {
    }

    /** @return list<string> the likeliest four in this stage: the first steps it offers, and its taps */
    public function likely(string $stage): array
    {
        return $this->likely[$stage] ??= $this->likeliest($stage);
    }

    /** @return list<string> */
    private function likeliest(string $stage): array
    {
        $places = [];
        foreach (EventKinds::all() as $kind) {
            $saying = $kind->declared->sayings[0] ?? null;
            if ($saying === null) {
                continue;
            }
            $offered = isset($kind->declared->offered[$stage]) ? [$kind->declared->offered[$stage]] : [];
            foreach ($kind->declared->taps as $tap) {
                if (\in_array($stage, $tap->in, true)) {
                    $offered[] = $tap->place;
                }
            }
            if ($offered !== []) {
                $places[$this->word($saying)] = min($offered);
            }
        }
        asort($places);

        return \array_slice(array_keys($places), 0, self::LIKELY);
    }

    /** @return array<string, list<string>> every verb, with the words that say how, in the order of the work */
    public function all(): array
    {
        // The same until the next release, and asked by every page with a keypad.
        $kept = $this->cache->getItem('line_verbs.'.$this->locale->getLocale());
        if (!$kept->isHit()) {
            $this->cache->save($kept->set($this->said()));
        }

        /** @var array<string, list<string>> */
        return $kept->get();
    }

    /** @return array<string, list<string>> */
    private function said(): array
    {
        $verbs = [];
        foreach (EventKinds::all() as $kind) {
            foreach ($kind->declared->sayings as $saying) {
                $verbs[$this->word($saying)] = $this->how($kind);
            }
        }

        return $verbs;
    }

    /** @return array<string, string> what each verb writes down, in the words of the record */
    public function meanings(): array
    {
        $meanings = [];
        foreach (EventKinds::all() as $kind) {
            foreach ($kind->declared->sayings as $saying) {
                $set = array_key_first($saying->sets);
                $meanings[$this->word($saying)] = $this->translator->trans(
                    $set === null || \count($kind->declared->sayings) < 2
                        ? 'event.'.$kind->name().'.name'
                        : "event.$set.{$saying->sets[$set]}",
                );
            }
        }

        return $meanings;
    }

    /** @return list<string> how it is done; not what a verb of its own says */
    private function how(Kind $kind): array
    {
        $sayings = $kind->declared->sayings;
        $set = \count($sayings) < 2
            ? []
            : array_merge(...array_map(static fn (LinePhrase $one): array => $one->sets, $sayings));
        $words = [];
        foreach ($kind->fields as $name => $field) {
            if (isset($set[$name])) {
                continue;
            }
            foreach ($field->says->usual as $usual) {
                $words[] = $this->translator->trans('event.usual.'.$usual);
            }
            foreach ($field->offered() as $choice) {
                $line = $this->translator->trans("choice.$name.{$choice->value}", domain: 'line');
                $words[] = str_starts_with($line, 'choice.')
                    ? $this->translator->trans("event.$name.{$choice->value}")
                    : explode(' ', $line)[0];
            }
            $flag = $field->type === FieldType::Flag ? $this->translator->trans("flag.$name", domain: 'line') : '';
            if ($flag !== '' && !str_starts_with($flag, 'flag.')) {
                $words[] = explode(' ', $flag)[0];
            }
        }

        return array_values(array_unique($words));
    }

    private function word(LinePhrase $saying): string
    {
        return explode(' ', $this->translator->trans('verb.'.$saying->key, domain: 'line'))[0];
    }
}
