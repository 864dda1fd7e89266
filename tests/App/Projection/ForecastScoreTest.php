<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Projection;

use Symfony\Component\Clock\Clock;
use Verjuicer\App\Projection\Projections;
use Verjuicer\Tests\App\KitchenTestCase;

/** What is stated is kept, settled by the readings that come, and counted on the page of trends. */
final class ForecastScoreTest extends KitchenTestCase
{
    public function testAWindowIsKeptOnceInHalfAnHourAndSettledByWhatIsRead(): void
    {
        $batch = $this->batch(7)->id->toRfc4122();
        $this->keep('7.1 173');
        $done = "SELECT count(*)::int FROM forecast_kept WHERE batch_id = '$batch' AND what = 'done'";
        $before = $this->number($done);
        self::assertGreaterThan(0, $before);
        $this->keep('7.1 174');
        self::assertSame($before, $this->number($done), 'one in half an hour');
        self::assertSame(0, $this->number($done.' AND is_over'));
        Clock::get()->sleep(3600);
        foreach ([1, 2, 3, 4] as $piece) {
            $this->keep("7.$piece 185");
        }
        Clock::get()->sleep(3600);
        foreach ([1, 2, 3, 4] as $piece) {
            $this->keep("7.$piece 199");
        }
        self::assertSame($this->number($done), $this->number($done.' AND is_over AND came_at IS NOT NULL'));
        $page = $this->client->request('GET', '/trends');
        $scores = $page->filter('section:contains("Accuracy of forecasts")')->text();
        self::assertMatchesRegularExpression('/forecasts? stated at 9 in 10/', $scores);
        self::assertStringContainsString('Lamb shoulder done', $scores);
        // Made anew, the read tables leave what was stated as it was.
        $all = "SELECT string_agg(f::text, ', ' ORDER BY f.batch_id, f.what, f.slot)
            FROM forecast_kept f WHERE f.is_over";
        $kept = $this->words($all);
        $this->asOwner();
        $this->service(Projections::class)->rebuild();
        self::assertSame($kept, $this->words($all));
    }
}
