<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Psr\Cache\CacheItemPoolInterface;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Forecast\CoolingOdds;
use Verjuicer\Core\Plan\ChillPlan;
use Verjuicer\Core\Plan\CookTime;
use Verjuicer\Core\Plan\Duration;
use Verjuicer\Core\Plan\HeatPlan;
use Verjuicer\Core\Plan\TimeEstimates;
use Verjuicer\Core\Record\RecordedProduct;

/** What physics answered once: the same question has the same answer. In a fixed number of places. */
final class CachedTimeEstimates implements TimeEstimates
{
    private const PLACES = 4096;

    /** @var array<string, mixed> */
    private array $known = [];

    /** @param string $version of what answers: elevation and gates */
    public function __construct(
        private readonly TimeEstimates $times,
        private readonly CacheItemPoolInterface $cache,
        private readonly string $version,
    ) {
    }

    public function cook(RecordedProduct $product, HeatPlan $heat): CookTime
    {
        $asked = ['cook', self::piece($product), get_object_vars($heat)];
        $found = $this->kept($asked, fn (): CookTime => $this->times->cook($product, $heat));

        return $found instanceof CookTime ? $found : $this->times->cook($product, $heat);
    }

    public function hot(RecordedProduct $product, Holding $place, float $celsius): Duration
    {
        $asked = ['hot', self::piece($product), $place->value, $celsius];
        $found = $this->kept($asked, fn (): Duration => $this->times->hot($product, $place, $celsius));

        return $found instanceof Duration ? $found : $this->times->hot($product, $place, $celsius);
    }

    public function cooling(ChillPlan $chill): CoolingOdds
    {
        $asked = ['cooling', $chill->method->value, $chill->depth, $chill->isCovered];
        $found = $this->kept($asked, fn (): CoolingOdds => $this->times->cooling($chill));

        return $found instanceof CoolingOdds ? $found : $this->times->cooling($chill);
    }

    /** @return list<string|int|null> what of a product makes one piece slow */
    private static function piece(RecordedProduct $product): array
    {
        return [$product->name, $product->form->value, $product->rawWeight?->grams()];
    }

    /**
     * @param list<mixed> $asked
     * @param \Closure(): object $answer
     */
    private function kept(array $asked, \Closure $answer): mixed
    {
        $key = hash('xxh128', serialize([$this->version, $asked]));
        if (!isset($this->known[$key])) {
            $item = $this->cache->getItem('plan.'.hexdec(substr($key, 0, 7)) % self::PLACES);
            $kept = $item->isHit() ? $item->get() : null;
            if (!\is_array($kept) || ($kept[0] ?? null) !== $key) {
                $kept = [$key, $answer()];
                $this->cache->save($item->set($kept));
            }
            $this->known[$key] = $kept[1];
        }

        return $this->known[$key];
    }
}
