<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Catalogue\Sensor\Sensors;
use Verjuicer\App\Operations\Due\Due;
use Verjuicer\App\Operations\Due\DueLine;
use Verjuicer\App\Operations\Due\DueLines;
use Verjuicer\App\Operations\Due\DueText;
use Verjuicer\App\Operations\Due\SiteDues;
use Verjuicer\App\Operations\Probe\DeadLetter;
use Verjuicer\App\Operations\Probe\DeadLetters;
use Verjuicer\App\Operations\Probe\SensorTrouble;
use Verjuicer\App\Operations\Probe\SensorTroubles;
use Verjuicer\App\Platform\Machine\BackgroundProcesses;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Series\SensorFaultKind;

/** Everything that asks for somebody in a site at this moment. */
final readonly class AlarmCauses
{
    public function __construct(
        private Lanes $lanes,
        private SiteDues $dues,
        private DueText $text,
        private SensorTroubles $troubles,
        private EquipmentDeviations $places,
        private DeadLetters $deadLetters,
        private Sensors $sensors,
        private BackgroundProcesses $processes,
        private UrlGeneratorInterface $urls,
        private TranslatorInterface $translator,
    ) {
    }

    /** @return list<AlarmCause> */
    public function of(Site $site): array
    {
        $sick = $this->places->of($site);
        $effects = [];
        $causes = [];
        foreach (DueLines::of($this->dues->of($site, $this->lanes->open($site)->lanes)) as $line) {
            $level = self::level($line->due);
            if ($level === null) {
                continue;
            }
            // A limit that is passed is told for itself: whoever took the place may not know of it.
            $place = $line->due->verdict === Verdict::Broken ? null : self::behind($line, $sick);
            if ($place === null) {
                $causes[] = $this->ofLine($line, $level);
            } else {
                $effects[$place->key][] = $this->batch($line).': '.$this->text->of($line->due);
            }
        }
        foreach ($this->troubles->of($site) as $trouble) {
            $causes[] = $this->ofTrouble($trouble);
        }

        foreach ($this->deadLetters->of($site) as $letter) {
            $causes[] = $this->ofDeadLetter($letter);
        }
        if ($this->sensors->isAnyOf($site) && $this->processes->isLooping(BackgroundProcesses::LISTENER)) {
            $causes[] = new AlarmCause(
                'process:'.BackgroundProcesses::LISTENER,
                AlarmLevel::Act,
                $this->translator->trans('alarm.process.listen'),
                $this->translator->trans('alarm.process.does'),
                null,
                null,
                $this->urls->generate('sensors'),
            );
        }

        return [
            ...array_map(
                fn (EquipmentDeviation $one): AlarmCause => $this->ofPlace($one)->with([
                    ...array_map($this->inside(...), array_values($one->inside)),
                    ...$effects[$one->key] ?? [],
                ]),
                $sick,
            ),
            ...self::oneEach($causes),
        ];
    }

    private static function level(Due $due): ?AlarmLevel
    {
        return match (true) {
            $due->kind === 'action' => $due->verdict === Verdict::Broken ? AlarmLevel::Wake : AlarmLevel::Act,
            $due->kind === 'forecast' => $due->message === 'due.forecast.late' ? AlarmLevel::Wake : AlarmLevel::Look,
            !$due->isLate => null,
            $due->rule === 'house.pit_low' => AlarmLevel::Act,
            // Nothing is lost while cooked food stays on the heat: the board says that it may be read.
            $due->kind === 'check' && $due->rule === 'cook' => null,
            $due->kind === 'reminder', $due->kind === 'house' => AlarmLevel::Look,
            default => AlarmLevel::Act,
        };
    }

    /**
     * What a line follows from: its batch is in a place that is sick.
     *
     * @param list<EquipmentDeviation> $sick
     */
    private static function behind(DueLine $line, array $sick): ?EquipmentDeviation
    {
        foreach ($sick as $place) {
            if (isset($place->inside[$line->due->lane->batchId])) {
                return $place;
            }
        }

        return null;
    }

    private function ofLine(DueLine $line, AlarmLevel $level): AlarmCause
    {
        $due = $line->due;
        // The same limit again, later, is another cause.
        $when = $due->kind === 'action' ? '' : ':'.$due->deadline?->epoch;

        return new AlarmCause(
            "due:{$due->lane->batchId}:{$due->kind}:{$due->rule}$when",
            $level,
            $this->batch($line),
            $this->text->of($due),
            $due->deadline,
            $due->lane->batchId,
            $this->urls->generate('batch', ['id' => $due->lane->batchId]),
        );
    }

    private function ofTrouble(SensorTrouble $trouble): AlarmCause
    {
        $level = match ($trouble->kind) {
            SensorFaultKind::BatteryLow, SensorFaultKind::WrongClock, SensorFaultKind::OutOfOrder => AlarmLevel::Look,
            default => AlarmLevel::Act,
        };
        $where = $trouble->tag === null
            ? $trouble->where
            : $this->translator->trans('board.tag', ['{tag}' => (string) $trouble->tag]);

        return new AlarmCause(
            "sensor:{$trouble->sensorId}:{$trouble->label}:{$trouble->kind->value}:{$trouble->since?->epoch}",
            $level,
            $trouble->label.': '.$this->translator->trans('probe.fault.'.$trouble->kind->value)
                .($where === null ? '' : " ($where)"),
            $this->translator->trans('probe.advice.'.$trouble->kind->value),
            null,
            $trouble->batchId,
            $this->urls->generate('sensor', ['sensor' => $trouble->sensorId]),
        );
    }

    private function ofDeadLetter(DeadLetter $letter): AlarmCause
    {
        return new AlarmCause(
            "dead:{$letter->sensorId}:".substr($letter->digest, 0, 16),
            AlarmLevel::Act,
            $this->translator->trans('alarm.dead_letter', ['{sensor}' => $letter->sensor]),
            $this->translator->trans('alarm.dead_letter_does'),
            null,
            null,
            $this->urls->generate('sensors'),
        );
    }

    private function ofPlace(EquipmentDeviation $place): AlarmCause
    {
        return new AlarmCause(
            $place->key,
            AlarmLevel::Wake,
            $this->translator->trans('alarm.place.'.$place->kind->value, [
                '{name}' => $place->name,
                '{temp}' => $place->reads,
                '{limit}' => $place->limit,
            ]),
            $this->translator->trans('alarm.do.'.$place->kind->value),
            null,
            null,
            $place->door,
        );
    }

    private function inside(Lane $lane): string
    {
        return $this->translator->trans('board.tag', ['{tag}' => (string) $lane->tag]).' '.$lane->product;
    }

    private function batch(DueLine $line): string
    {
        return $this->translator->trans('board.tag', ['{tag}' => $line->tags()]).' '.$line->due->lane->product;
    }

    /**
     * @param list<AlarmCause> $causes
     *
     * @return list<AlarmCause> each once
     */
    private static function oneEach(array $causes): array
    {
        $byKey = [];
        foreach ($causes as $cause) {
            $byKey[$cause->key] ??= $cause;
        }

        return array_values($byKey);
    }
}
