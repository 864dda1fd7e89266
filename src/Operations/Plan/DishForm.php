<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Site\WallTime;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Plan\HeatPlan;

/** The form of a dish, read and filled. */
final readonly class DishForm
{
    private const MOST_PIECES = 500;
    private const MOST_PORTIONS = 5000;
    private const LONGEST_BEFORE = 14 * 24 * 3600; // seconds
    private const DAY = 24 * 60;
    private const WEEK = 7 * self::DAY;
    private const SHALLOWEST = 5.0; // mm
    private const DEEPEST = 305.0;

    public function __construct(private MeasureFormatter $figures)
    {
    }

    /** @return DishFacts|null null where something is wrong with it */
    public function read(FormInput $input, Site $site, DishFacts $before, Instant $serve): ?DishFacts
    {
        $unit = $site->unit;
        $wrap = $input->text('wrap', most: 20);
        if ($wrap !== '' && !\in_array($wrap, HeatPlan::WRAPS, true)) {
            $input->refuse('wrap', 'form.problem.choice');
        }
        $chill = $input->choice('chill_method', Holding::class);
        $load = $this->moment($input, 'load', $site);
        if ($load !== null && !self::isLoadable($load, $serve)) {
            $input->refuse('load', 'plan.problem.load');
        }
        $facts = [
            'portions' => $input->whole('portions', 1, self::MOST_PORTIONS, true),
            'plateGrams' => $input->grams('plate', true, $before->plateGrams),
            'pieceGrams' => $input->grams('piece', true, $before->pieceGrams),
            'set' => $input->temperature('set', $unit, true),
            'target' => $input->temperature('target', $unit, true),
            'rest' => $input->choice('rest', Holding::class, true),
        ];
        $pieces = $input->whole('pieces', 1, self::MOST_PIECES);
        $wrapAt = $input->temperature('wrap_at', $unit);
        $wrapAfter = $input->minutes('wrap_after', self::DAY);
        $total = $input->minutes('total', 3 * self::DAY);
        $hold = $input->choice('hold', Holding::class);
        $depth = $input->millimeters('chill_depth', self::SHALLOWEST, self::DEEPEST, 'cooling.problem');
        $lengths = [];
        foreach (['sauced', 'resting', 'slicing', 'reheating', 'tempered', 'fire'] as $name) {
            $lengths[$name] = $input->minutes($name, self::DAY) ?? 0;
        }
        foreach (['injected', 'seasoned'] as $name) {
            $lengths[$name] = $input->minutes($name, self::WEEK) ?? 0;
        }
        if ($wrap !== '' && $wrapAt === null && $wrapAfter === null) {
            $input->refuse('wrap_at', 'plan.problem.wrap_when');
        }
        if (!$input->isGood()) {
            return null;
        }
        \assert(
            $facts['portions'] !== null && $facts['plateGrams'] !== null && $facts['pieceGrams'] !== null
            && $facts['set'] !== null && $facts['target'] !== null && $facts['rest'] !== null,
        );

        return new DishFacts(
            $facts['portions'],
            $facts['plateGrams'],
            $facts['pieceGrams'],
            $pieces,
            $facts['set'],
            $facts['target'],
            $wrap === '' ? null : $wrap,
            $wrap === '' ? null : $wrapAt,
            $wrap === '' || $wrapAt !== null ? null : $wrapAfter,
            $total,
            $lengths['sauced'],
            $facts['rest'],
            $lengths['resting'],
            $hold,
            $lengths['slicing'],
            $chill,
            $depth === null ? $before->chillDepthMm : (int) round($depth),
            $input->isOn('chill_covered'),
            $lengths['reheating'],
            $input->isOn('thawed'),
            $lengths['injected'],
            $lengths['seasoned'],
            $lengths['tempered'],
            $lengths['fire'],
            $input->text('pit') === '' ? null : $input->text('pit'),
            $load,
        );
    }

    /** Whether a dish can be loaded then for a meal. */
    public static function isLoadable(Instant $load, Instant $serve): bool
    {
        $before = $serve->epoch - $load->epoch;

        return $before > 0 && $before <= self::LONGEST_BEFORE;
    }

    /** @return array<string, string> */
    public function filled(DishFacts $facts, string $service, Site $site): array
    {
        $length = static fn (?int $minutes): string => $minutes === null || $minutes === 0
            ? ''
            : \sprintf('%d:%02d', intdiv($minutes, 60), $minutes % 60);

        return [
            'service' => $service,
            'portions' => (string) $facts->portions,
            'plate' => $this->figures->weight($facts->plateGrams),
            'piece' => $this->figures->weight($facts->pieceGrams),
            'pieces' => (string) $facts->pieces,
            'set' => $facts->set->number(),
            'target' => $facts->target->number(),
            'wrap' => (string) $facts->wrap,
            'wrap_at' => $facts->wrapAt === null ? '' : $facts->wrapAt->number(),
            'wrap_after' => $length($facts->wrapAfter),
            'total' => $length($facts->total),
            'sauced' => $length($facts->sauced),
            'rest' => $facts->rest->value,
            'resting' => $length($facts->resting),
            'hold' => (string) $facts->hold?->value,
            'slicing' => $length($facts->slicing),
            'chill_method' => (string) $facts->chillMethod?->value,
            'chill_depth' => $this->figures->length((float) $facts->chillDepthMm),
            'chill_covered' => $facts->isChillCovered ? '1' : '',
            'reheating' => $length($facts->reheating),
            'thawed' => $facts->isThawed ? '1' : '',
            'injected' => $length($facts->injected),
            'seasoned' => $length($facts->seasoned),
            'tempered' => $length($facts->tempered),
            'fire' => $length($facts->fire),
            'pit' => (string) $facts->pit,
            'load' => $facts->load === null ? '' : substr(WallTime::of($facts->load, $site->zone()), 0, 16),
        ];
    }

    /** A moment on the site's wall that may lie ahead; null where nothing was typed, or nothing that can be read. */
    public function moment(FormInput $input, string $field, Site $site, bool $isRequired = false): ?Instant
    {
        $given = $input->wallMinute($field, $isRequired);
        $at = $given === '' ? null : WallTime::parse($given, $site->zone(), Instant::ofEpoch(0));
        if ($given !== '' && $at === null) {
            $input->refuse($field, 'plan.problem.moment');
        }

        return $at;
    }
}
