<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Sabre\VObject\Component\VCalendar;
use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Platform\Now;
use Verjuicer\Core\Measure\Instant;

/** A plan as a calendar (iCalendar, RFC 5545): an entry for each thing hands do, and one for each meal. */
final readonly class PlanCalendar
{
    private const MINUTES = 15;

    public function __construct(private TranslatorInterface $translator, private PlanWords $words, private Now $now)
    {
    }

    public function of(PlanSheet $sheet): string
    {
        $site = $sheet->plan->site;
        $calendar = new VCalendar(['PRODID' => '-//Verjuicer//Plan//EN']);
        $calendar->add('X-WR-CALNAME', $sheet->plan->name);
        foreach ($sheet->plan->services() as $service) {
            $this->add($calendar, 'meal-'.$sheet->plan->id->toRfc4122().'-'.$service->id, $service->at, $service->name);
        }
        foreach ($sheet->steps() as ['step' => $step, 'dish' => $dish]) {
            $what = $this->translator->trans('plan.step.'.$step->kind->value);
            $name = $what.': '.$dish->dish->product->name.' × '.$dish->pieces;
            $about = $dish->facts->pit === null ? [] : [$dish->facts->pit];
            if ($step->earliest !== null && $step->latest !== null && $step->isOpen()) {
                $about[] = $this->translator->trans('plan.between', [
                    '{from}' => $this->words->time($step->earliest, $site),
                    '{to}' => $this->words->time($step->latest, $site),
                ]);
            }
            $id = $dish->dish->id->toRfc4122().'-'.$step->kind->value;
            $this->add($calendar, $id, $step->at, $name, implode(' · ', $about));
        }

        return $calendar->serialize();
    }

    private function add(VCalendar $calendar, string $id, Instant $at, string $name, string $about = ''): void
    {
        $calendar->add('VEVENT', [
            'UID' => $id.'@verjuicer',
            'SUMMARY' => $name,
            'DTSTAMP' => self::utc($this->now->instant()),
            'DTSTART' => self::utc($at),
            'DURATION' => 'PT'.self::MINUTES.'M',
        ] + ($about === '' ? [] : ['DESCRIPTION' => $about]));
    }

    private static function utc(Instant $at): \DateTimeImmutable
    {
        return new \DateTimeImmutable($at->rfc3339());
    }
}
