<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Psr\Log\LoggerInterface;
use Symfony\Component\Uid\Uuid;
use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Ledger\Chain\RecordingClock;
use Verjuicer\App\Platform\Machine\Uptime;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\Site;

/**
 * Alerts the crew while the clock of the machine is refused. No alarm can be recorded then, so this sends its messages
 * without recording them: the first contact at once, each next one after the minutes of an urgent alarm.
 */
final class ClockAlert
{
    /** @var array<string, int> seconds of uptime at which a site's clock was first seen refused */
    private array $since = [];

    /** @var array<string, true> ids of the messages that a gateway accepted */
    private array $sent = [];

    public function __construct(
        private readonly RecordingClock $clock,
        private readonly DutyRoster $duty,
        private readonly Gateway $gateway,
        private readonly Uptime $uptime,
        private readonly Now $now,
        private readonly TranslatorInterface $translator,
        private readonly LoggerInterface $logger,
    ) {
    }

    /**
     * Sends what is due on these channels. A message keeps its id, so a gateway delivers it once even if this restarts.
     *
     * @param list<AlarmChannel> $channels
     *
     * @return bool whether the clock of the site is refused
     */
    public function send(Site $site, array $channels): bool
    {
        $id = $site->id->toRfc4122();
        if ($this->clock->problemOf($site) === null) {
            unset($this->since[$id]);

            return false;
        }
        // Elapsed time must not come from the clock that is in question.
        $seconds = $this->uptime->seconds() ?? $this->now->instant()->epoch;
        if (!isset($this->since[$id])) {
            $this->since[$id] = $seconds;
            $this->logger->critical('The clock of site {site} is refused: no entry or alarm is recorded.', [
                'site' => $id,
            ]);
        }
        $level = $this->duty->plan($site)[AlarmLevel::Wake->value];
        // That clock cannot tell day from night either, so both sets of channels are used.
        $planned = [...$level->day, ...$level->night];
        $line = array_filter(
            $this->duty->line($site, $this->now->instant()),
            static fn (Contact $one): bool => $one->isReachedBy($planned),
        );
        $count = $level->minutes > 0 ? 1 + intdiv($seconds - $this->since[$id], 60 * $level->minutes) : 1;
        $begun = [];
        foreach (\array_slice($line, 0, $count) as $contact) {
            foreach ($channels as $channel) {
                $message = $this->id($site, $channel, $contact);
                $isDue = \in_array($channel, $planned, true) && !isset($this->sent[$message]);
                if ($isDue && $contact->isReachedBy([$channel])) {
                    $begun[$message] = $this->gateway->begin(
                        $message,
                        $id,
                        $channel,
                        $contact->address($channel),
                        $this->words($site),
                    );
                }
            }
        }
        foreach ($begun as $message => $finish) {
            try {
                $finish();
                $this->sent[$message] = true;
            } catch (DeliveryFailed) {
                // The next look sends it again.
            }
        }

        return true;
    }

    private function id(Site $site, AlarmChannel $channel, Contact $contact): string
    {
        $last = $this->clock->last($site)?->epoch;

        return Uuid::v5($site->id, "clock/$last/{$channel->value}/{$contact->accountId}")->toRfc4122();
    }

    private function words(Site $site): string
    {
        return $site->name.': '.$this->translator->trans('alarm.clock', [
            '{page}' => $this->translator->trans('keeping.title'),
        ]);
    }
}
