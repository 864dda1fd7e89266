<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Projection;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\Clock;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Forecast\Forecasts;
use Verjuicer\App\Projection\Learning\LearnedPriors;
use Verjuicer\App\Projection\Projections;
use Verjuicer\Core\Forecast\Belief\ParameterSample;
use Verjuicer\Core\Forecast\Learning\LearnedSample;
use Verjuicer\Core\Forecast\Learning\LearningSubject;
use Verjuicer\Tests\App\KitchenTestCase;

/** Batches that are over move what forecasts begin with, as dated versions that can be taken back. */
final class LearnedPriorsTest extends KitchenTestCase
{
    public function testABatchThatIsOverTeachesOnceAndARebuildFindsTheSame(): void
    {
        $this->logIn();
        $id = $this->batch(7)->id->toRfc4122();
        $its = "SELECT coalesce(string_agg(concat_ws(' ', l.about, l.subject, l.shown), ', '
              ORDER BY l.about, l.subject), '')
            FROM prior_lesson l WHERE l.batch_id = '$id'";
        $this->forecastsAreMade();
        self::assertSame('', $this->words($its), 'it is on the heat');
        $this->keep('7 off');
        Clock::get()->sleep(1800);
        $this->keep('7 discard');
        $taught = $this->words($its);
        self::assertStringContainsString('product Lamb shoulder', $taught);
        self::assertStringContainsString('pit ', $taught);
        $this->asOwner();
        $this->service(Projections::class)->rebuild();
        self::assertSame($taught, $this->words($its));
    }

    public function testAVersionADayIsInForceUntilItIsTakenBack(): void
    {
        $this->logIn();
        $priors = $this->service(LearnedPriors::class);
        $batch = $this->batch(7);
        $assessment = $this->service(Assessments::class)->of($batch);
        $usual = $this->window();
        $ended = $this->others(6);
        $hear = function (int $from, int $until, float $off) use ($priors, $ended): void {
            foreach (\array_slice($ended, $from, $until - $from) as $one) {
                $shown = [ParameterSample::HALF => [$off, 0.9], ParameterSample::DRYING => [$off, 0.8]];
                $lesson = new LearnedSample(LearningSubject::Product, 'Lamb shoulder', $shown);
                $priors->hear($one, $this->service(Now::class)->instant(), [$lesson]);
            }
        };
        $hear(0, 2, 1.0);
        self::assertNull($priors->learned($batch->site, $assessment), 'two are too few');
        $hear(2, 4, 1.0);
        self::assertCount(1, $priors->all($batch->site), 'one version a day');
        $first = $priors->learned($batch->site, $assessment)->unknowns[ParameterSample::HALF] ?? null;
        self::assertNotNull($first);
        $this->service(Forecasts::class)->forget();
        self::assertNotSame($usual, $this->window(), 'the forecast hears it');
        Clock::get()->sleep(86_400);
        $hear(4, 6, 2.0);
        self::assertCount(2, $priors->all($batch->site));
        self::assertNotSame(
            $first,
            $priors->learned($batch->site, $assessment)->unknowns[ParameterSample::HALF] ?? null,
        );
        $hear(4, 6, 2.0);
        Clock::get()->sleep(86_400);
        $hear(4, 6, 2.0);
        self::assertCount(2, $priors->all($batch->site), 'what says the same is no further version');
        $page = $this->client->request('GET', '/own-cooks');
        self::assertStringContainsString('from 6 batches', $page->filter('main')->text());
        self::assertStringContainsString('% thicker than their weight says', $page->filter('main')->text());
        $this->client->submit($page->filter('button[aria-label="Ignore Lamb shoulder"]')->form());
        $page = $this->client->followRedirect();
        self::assertStringContainsString('Ignored, with the batches it came from', $page->text());
        self::assertSame($first, $priors->learned($batch->site, $assessment)->unknowns[ParameterSample::HALF] ?? null);
        $hear(4, 6, 2.0);
        self::assertSame(
            $first,
            $priors->learned($batch->site, $assessment)->unknowns[ParameterSample::HALF] ?? null,
            'what it came with is heard no more',
        );
        $this->client->submit($page->filter('button[aria-label="Use Lamb shoulder again"]')->form());
        $hear(4, 6, 2.0);
        self::assertNotSame(
            $first,
            $priors->learned($batch->site, $assessment)->unknowns[ParameterSample::HALF] ?? null,
        );
        // Batches that teach nothing any more, put right as they were, leave what is usual.
        foreach ($ended as $one) {
            $priors->hear($one, $this->service(Now::class)->instant(), []);
        }
        self::assertSame([], $priors->learned($batch->site, $assessment)->unknowns ?? null);
        $text = $this->client->request('GET', '/own-cooks')->filter('main')->text();
        self::assertStringContainsString('from no batches', $text);
    }

    /** @return list<Batch> other batches of the kitchen */
    private function others(int $many): array
    {
        $batches = $this->service(EntityManagerInterface::class)
            ->getRepository(Batch::class)
            ->findBy(['site' => $this->batch(7)->site], ['begunAt' => 'ASC', 'id' => 'ASC'], $many + 1);

        return \array_slice(
            array_values(array_filter($batches, fn ($one): bool => !$one->id->equals($this->batch(7)->id))),
            0,
            $many,
        );
    }

    private function window(): string
    {
        $batch = $this->batch(7);
        $cook = $this->service(Forecasts::class)->cook($batch, $this->service(Assessments::class)->of($batch));

        return ($cook->window->earliest->epoch ?? 0).'–'.($cook->window->latest->epoch ?? 0);
    }
}
