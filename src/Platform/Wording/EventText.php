<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Field;
use Verjuicer\Core\Event\FieldType;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TimeZone;
use Verjuicer\Core\Measure\Weight;
use Verjuicer\Core\Record\ImportOrigin;
use Verjuicer\Core\Series\SensorFaultKind;

/** An event in a few words; its fields are described in the catalogue of kinds. */
final readonly class EventText
{
    /** Left out: the words next to it include it. */
    private const SAID_BY = ['holding' => ['method', 'place'], 'does' => ['text']];

    public function __construct(private TranslatorInterface $translator, private MeasureFormatter $figures)
    {
    }

    public function of(
        Detail $detail,
        ?string $reason,
        int $pieces,
        TimeZone $zone,
        ?ImportOrigin $imported = null,
    ): string {
        $told = $detail instanceof Reading ? $this->reading($detail, $pieces) : $this->event($detail, $pieces, $zone);
        if ($reason !== null) {
            $told[] = $reason;
        }
        if ($imported !== null) {
            $told[] = $this->imported($imported, $zone);
        }

        return implode(' · ', $told);
    }

    /** "piece 2, flat"; the piece only where there are several. */
    public function track(int $piece, string $spot, int $pieces): string
    {
        $values = ['{piece}' => (string) $piece, '{spot}' => $spot];

        return match (true) {
            $spot === Reading::PAN => $this->translator->trans('entry.echo.pan'),
            $pieces === 1 => $spot,
            default => $this->translator->trans('entry.echo.track', $values),
        };
    }

    /** @return list<string> */
    private function reading(Reading $reading, int $pieces): array
    {
        $told = [
            $this->track($reading->piece, $reading->spot, $pieces),
            $this->figures->temperature($reading->temp),
            $reading->thermometer ?? $this->translator->trans('entry.echo.no_thermometer'),
        ];
        if ($reading->feel !== null) {
            $told[] = $this->translator->trans('event.feel.'.$reading->feel->value);
        }

        return $told;
    }

    /** @return list<string> */
    private function event(Detail $detail, int $pieces, TimeZone $zone): array
    {
        $kind = EventKinds::of($detail::class);
        $values = $kind->values($detail);
        $told = [$this->translator->trans('event.'.$kind->name().'.name')];
        foreach ($values as $name => $value) {
            $isSaid =
                array_filter(
                    self::SAID_BY[$name] ?? [],
                    static fn (string $other): bool => ($values[$other] ?? null) !== null,
                ) !== [];
            if (
                $value === null
                || $value === false
                || $value === []
                || $isSaid
                || ($name === 'piece' && $pieces === 1)
            ) {
                continue;
            }
            $told[] = $this->translator->trans('event.field.'.$name, [
                '{value}' => $this->value($kind->fields[$name], $value, $zone),
            ]);
        }

        return $told;
    }

    private function value(Field $field, mixed $value, TimeZone $zone): string
    {
        return match (true) {
            $value instanceof Temperature => $this->figures->temperature($value),
            $value instanceof Weight => $this->figures->weight($value->grams()),
            $value instanceof Instant => $this->figures->time($value, $zone),
            $value instanceof LocalDate => $this->figures->date($value),
            $value instanceof \BackedEnum => $this->translator->trans('event.'.$field->name.'.'.$value->value),
            \is_string($value) && \in_array($value, $field->says->usual, true) => $this->translator->trans(
                'event.usual.'.$value,
            ),
            $field->type === FieldType::Words && \is_array($value) => $this->allergens($value),
            $value === SensorFaultKind::tryFrom(\is_string($value) ? $value : '')?->value => $this->translator->trans(
                'probe.fault.'.$value,
            ),
            \is_int($value) && $field->isLength() => $this->figures->length((float) $value),
            $field->name === 'finding' && \is_string($value) => $this->rule($value),
            \is_scalar($value) => (string) $value,
            default => '',
        };
    }

    /** A rule by its words; a file from elsewhere may name one that we do not have. */
    private function rule(string $name): string
    {
        $words = $this->translator->trans('rule.'.$name);

        return $words === 'rule.'.$name ? $name : $words;
    }

    /** @param array<mixed> $allergens */
    private function allergens(array $allergens): string
    {
        $words = array_map(
            fn (mixed $one): string => \is_string($one) ? $this->translator->trans('allergen.'.$one) : '',
            $allergens,
        );

        return implode(', ', $words);
    }

    private function imported(ImportOrigin $imported, TimeZone $zone): string
    {
        $says = $imported->saysRecordedAt;

        return $says === null
            ? $this->translator->trans('event.imported', ['{by}' => $imported->by])
            : $this->translator->trans('event.imported_says', [
                '{by}' => $imported->by,
                '{day}' => $this->figures->date(LocalDate::ofInstant($says, $zone)),
                '{time}' => $this->figures->time($says, $zone),
            ]);
    }
}
