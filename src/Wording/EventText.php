<?php

declare(strict_types=1);

namespace Verjuicer\App\Wording;

use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Record\Detail;
use Verjuicer\Core\Record\EventType;

/** What an event says, in a few words. */
final readonly class EventText
{
    public function __construct(private TranslatorInterface $translator, private Figures $figures)
    {
    }

    public function of(EventType $type, Detail\Detail $detail, ?string $reason, int $pieces): string
    {
        if ($detail instanceof Detail\Reading) {
            return implode(' · ', [
                $this->track($detail->piece, $detail->spot, $pieces),
                $this->figures->temperature($detail->temp),
                $detail->thermometer ?? $this->translator->trans('entry.echo.no_thermometer'),
            ]);
        }
        $parts = [$this->translator->trans('event.'.$type->value.'.name')];
        foreach ($detail->members() as $name => $value) {
            if ($value !== null && $value !== false && !($detail instanceof Detail\ProbeMoved && $name === 'piece' && $pieces === 1)) {
                $parts[] = $this->member($name, $value);
            }
        }
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
