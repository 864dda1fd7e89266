<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Sensor\Sensor;
use Verjuicer\App\Catalogue\Sensor\Sensors;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Series\ArrivedSample;
use Verjuicer\App\Ledger\Series\RawSeries;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Forecast\Forecasts;
use Verjuicer\App\Projection\Forecast\ForecastTiming;
use Verjuicer\App\Site\Access\AccessToken;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Series\Sample;

/**
 * The one way in for what sensors say, over HTTP and MQTT: kept raw once, by channel and sequence; looked at for
 * faults; and what a record needs of it recorded. All of a request or nothing of it, before it is answered.
 */
final readonly class ReadingIngest
{
    /** How far a clock may be ahead, in seconds. */
    private const AHEAD = 60;
    /** A sensor that kept what it could not send may bring days of it. */
    private const OLDEST_DAYS = 40;

    public function __construct(
        private Sensors $sensors,
        private RawSeries $raw,
        private SampleRecorder $recorded,
        private Ledger $ledger,
        private Forecasts $forecasts,
        private EntityManagerInterface $entities,
        private Now $now,
    ) {
    }

    public function take(AccessToken $token, PostedReadings $posted): ReadingResults
    {
        $site = $this->entities->find(Site::class, Uuid::fromString($token->siteId));
        \assert($site !== null, 'a token is of a site');

        return $this->forecasts->while(
            ForecastTiming::Rarely,
            fn (): ReadingResults => $this->taken($site, $token, $posted),
        );
    }

    private function taken(Site $site, AccessToken $token, PostedReadings $posted): ReadingResults
    {
        return $this->ledger->write($site, function () use ($site, $token, $posted): ReadingResults {
            $sensor = $this->sensors->held($site, $token->sensorId ?? '');
            \assert($sensor !== null, 'its token was not taken back');
            $now = $this->now->instant();
            $skew = $posted->sentAt === null ? null : $now->epoch - $posted->sentAt->epoch;
            // A second is what a request takes; a clock is not wrong by that.
            $applied = $skew === null || abs($skew) <= 1 ? 0 : $skew;
            [$answers, $new] = $this->sorted($sensor, $posted->readings, $applied, $now);
            $this->raw->add($token->siteId, array_merge(...array_values($new)), $now);
            $this->sensors->heard($sensor, $skew, $posted->batteryPercent);
            $samples = [];
            foreach ($new as $channel => $arrived) {
                $samples[$channel] = array_map(static fn (ArrivedSample $one): Sample => $one->sample(), $arrived);
            }
            $this->recorded->of($site, $sensor, $samples);

            return new ReadingResults($now, $skew, $answers);
        });
    }

    /**
     * @param list<PostedReading> $readings
     *
     * @return array{list<ReadingResult>, array<string, list<ArrivedSample>>} the answers in order, and what is new, by
     *     channel
     */
    private function sorted(Sensor $sensor, array $readings, int $skew, Instant $now): array
    {
        $known = $this->known($sensor, $readings);
        $answers = [];
        $new = [];
        foreach ($readings as $index => $reading) {
            $pointer = "/readings/$index";
            $channel = $sensor->channel($reading->channel);
            if ($reading->at === null || $reading->problem !== null) {
                $problem = $reading->problem;
                $answers[] = self::refusal($reading, $problem->pointer ?? $pointer, $problem->message ?? '');
                continue;
            }
            if ($channel === null) {
                $answers[] = self::refusal(
                    $reading,
                    $pointer.'/channel',
                    \sprintf('this sensor has channels 1 to %d', \count($sensor->channels)),
                );
                continue;
            }
            $at = $reading->at->plus(Span::ofSeconds($skew));
            $arrived = new ArrivedSample($channel->id, $reading->sequence, $reading->at, $at, $reading->temp);
            $earlier = $known[$channel->id][$reading->sequence] ?? null;
            if ($earlier !== null) {
                $answers[] = $arrived->isSameAs($earlier)
                    ? new ReadingResult($reading->channel, $reading->sequence, 'known')
                    : self::refusal(
                        $reading,
                        $pointer.'/sequence',
                        \sprintf(
                            'another reading has this number: go on from %d',
                            max($channel->lastSequence ?? 0, ...array_keys($known[$channel->id])) + 1,
                        ),
                    );
                continue;
            }
            $problem = match (true) {
                $at->epoch > $now->epoch + self::AHEAD => 'lies ahead of now: send "sent_at", the time it is by the '
                    .'clock of the sensor, and it is set right',
                $at->epoch < $now->epoch - 86_400 * self::OLDEST_DAYS => 'is too long ago to be kept',
                default => null,
            };
            if ($problem !== null) {
                $answers[] = self::refusal($reading, $pointer.'/at', $problem);
                continue;
            }
            $known[$channel->id][$reading->sequence] = $arrived;
            $new[$channel->id][] = $arrived;
            $answers[] = new ReadingResult($reading->channel, $reading->sequence, 'kept');
        }

        return [$answers, $new];
    }

    /**
     * @param list<PostedReading> $readings
     *
     * @return array<string, array<int, ArrivedSample>> what is there already of what was sent, by channel and sequence
     */
    private function known(Sensor $sensor, array $readings): array
    {
        $asked = [];
        foreach ($readings as $reading) {
            $channel = $sensor->channel($reading->channel);
            // Above the highest that came nothing is there.
            if ($channel !== null && $reading->sequence <= ($channel->lastSequence ?? -1)) {
                $asked[$channel->id][] = $reading->sequence;
            }
        }
        $known = [];
        foreach ($asked as $id => $sequences) {
            $known[$id] = $this->raw->known($id, $sequences);
        }

        return $known;
    }

    private static function refusal(PostedReading $reading, string $pointer, string $message): ReadingResult
    {
        return new ReadingResult($reading->channel, $reading->sequence, 'refused', $pointer, $message);
    }
}
