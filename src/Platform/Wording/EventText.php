<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Json\Problems;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\Zone;
use Verjuicer\Core\Record\Detail;
use Verjuicer\Core\Record\EventType;

/** What an event says, in a few words. */
final readonly class EventText
{
    /** Those it tells, in this order. */
    private const EXTRAS = [
        'step', 'stuffed', 'pit', 'recipe', 'weight_kg', 'portions', 'before_kg', 'after_kg', 'total_kg', 'left_kg', 'lost_kg', 'why', 'depth_mm', 'around', 'on', 'plan_name',
        'to_spot', 'feel', 'mixed_from', 'mixed_into', 'allergens', 'ready_by', 'evidence', 'imported',
    ];

    public function __construct(private TranslatorInterface $translator, private Figures $figures)
    {
    }

    /** @param array<string, mixed> $extras members beyond the format's own, of which it tells those it knows */
    public function of(EventType $type, Detail\Detail $detail, ?string $reason, int $pieces, array $extras, Zone $zone): string
    {
        if ($detail instanceof Detail\Reading) {
            return implode(' · ', [
                $this->track($detail->piece, $detail->spot, $pieces),
                $this->figures->temperature($detail->temp),
                $detail->thermometer ?? $this->translator->trans('entry.echo.no_thermometer'),
                ...$this->extras($extras, $zone),
            ]);
        }
        $parts = [$this->translator->trans('event.'.$type->value.'.name')];
        foreach ($detail->members() as $name => $value) {
            if ($value !== null && $value !== false && !($detail instanceof Detail\ProbeMoved && $name === 'piece' && $pieces === 1)) {
                $parts[] = $this->member($name, $value);
            }
        }
        array_push($parts, ...$this->extras($extras, $zone));
        if ($reason !== null) {
            $parts[] = $reason;
        }

        return implode(' · ', $parts);
    }

    /** "piece 2, flat"; the piece only where there are several. */
    public function track(int $piece, string $spot, int $pieces): string
    {
        return $pieces === 1 ? $spot : $this->translator->trans('entry.echo.track', ['{piece}' => (string) $piece, '{spot}' => $spot]);
    }

    /**
     * @param array<string, mixed> $extras
     *
     * @return list<string>
     */
    private function extras(array $extras, Zone $zone): array
    {
        $told = [];
        foreach (self::EXTRAS as $name) {
            $value = $extras[$name] ?? null;
            $words = match (true) {
                $name === 'ready_by' && \is_string($value) => $this->figures->time(Instant::parse($value), $zone),
                \in_array($name, ['before_kg', 'after_kg', 'weight_kg'], true) && (\is_float($value) || \is_int($value)) => $this->figures->kilograms((int) round(1000 * $value)),
                $name === 'feel' && \is_string($value) => $this->translator->trans('event.feel.'.$value),
                $name === 'allergens' && \is_array($value) => implode(', ', array_map(fn (mixed $one): string => \is_string($one) ? $this->translator->trans('allergen.'.$one) : '', $value)),
                $name === 'stuffed' && $value === true => '',
                $name === 'step' && \is_string($value) => $this->translator->trans('event.step.'.$value),
                \in_array($name, ['why', 'on'], true) && \is_string($value) => $this->translator->trans('event.'.$name.'.'.$value),
                $name === 'around' && ($value instanceof \stdClass) => $this->around($value),
                $name === 'imported' && $value instanceof \stdClass => $this->imported($value, $zone),
                \in_array($name, ['total_kg', 'left_kg', 'lost_kg'], true) && (\is_float($value) || \is_int($value)) => $value > 0 ? $this->figures->kilograms((int) round(1000 * $value)) : null,
                \in_array($name, ['depth_mm', 'portions'], true) && \is_int($value) => (string) $value,
                \in_array($name, ['pit', 'recipe', 'to_spot', 'plan_name', 'mixed_from', 'mixed_into', 'evidence'], true) && \is_string($value) => $value,
                default => null,
            };
            if ($words !== null) {
                $told[] = $this->translator->trans('event.extra.'.$name, ['{value}' => $words]);
            }
        }

        return $told;
    }

    private function imported(\stdClass $value, Zone $zone): string
    {
        $by = \is_string($value->by ?? null) ? $value->by : '?';
        $says = \is_string($value->says_recorded_at ?? null) ? Instant::parse($value->says_recorded_at) : null;

        return $says === null ? $by : $this->translator->trans('event.imported_says', ['{by}' => $by, '{day}' => $this->figures->date(LocalDate::ofInstant($says, $zone)), '{time}' => $this->figures->time($says, $zone)]);
    }

    private function around(\stdClass $value): ?string
    {
        $temperature = (new Fields((object) ['around' => $value], null, '', new Problems()))->temperature('around');

        return $temperature === null ? null : $this->figures->temperature($temperature);
    }

    private function member(string $name, mixed $value): string
    {
        return match (true) {
            $value instanceof Temperature => $this->translator->trans('event.member.'.$name, ['{value}' => $this->figures->temperature($value)]),
            \in_array($name, ['oven', 'for', 'plan'], true) && \is_string($value) => $this->translator->trans('event.'.$name.'.'.$value),
            $value === true => $this->translator->trans('event.member.'.$name),
            $name === 'piece' && \is_int($value) => $this->translator->trans('event.member.piece', ['{value}' => (string) $value]),
            default => \is_scalar($value) ? (string) $value : '',
        };
    }
}
