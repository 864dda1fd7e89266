<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Mailer\MailerInterface;
use Symfony\Component\Mime\Email;
use Symfony\Contracts\HttpClient\HttpClientInterface;
use Symfony\Contracts\HttpClient\ResponseInterface;

/**
 * Hands a message on: mail to a mail server; text messages and calls to a gateway, an HTTP POST with "id", "channel",
 * "to", "words" and "site" that it answers by 2xx. The id is the same when it is sent again: a gateway sends it once.
 */
final readonly class Gateway
{
    private const SECONDS = 5;

    public function __construct(
        private HttpClientInterface $http,
        private MailerInterface $mailer,
        #[Autowire(env: 'ALARM_GATEWAY')] private string $gateway,
        #[Autowire(env: 'ALARM_MAIL_FROM')] private string $from,
        #[Autowire('%kernel.secret%')] private string $secret,
    ) {
    }

    /**
     * Begins to hand on a message.
     *
     * @return \Closure(): void waits for the answer; throws DeliveryFailed if it was not taken
     */
    public function begin(string $id, string $siteId, AlarmChannel $channel, string $to, string $words): \Closure
    {
        try {
            $response = $channel === AlarmChannel::Mail
                ? null
                : $this->post($id, $siteId, $channel, $to, $words);
            if ($response === null) {
                $this->mailer->send(self::mail($id, $this->from, $to, $words));
            }
        } catch (\Throwable $problem) {
            return static fn () => throw self::notHandedOn($problem);
        }

        return static function () use ($response): void {
            try {
                $status = $response?->getStatusCode() ?? 200;
            } catch (\Throwable $problem) {
                throw self::notHandedOn($problem);
            }
            if (intdiv($status, 100) !== 2) {
                throw new DeliveryFailed('the gateway answers '.$status);
            }
        };
    }

    private static function notHandedOn(\Throwable $problem): DeliveryFailed
    {
        return $problem instanceof DeliveryFailed ? $problem : new DeliveryFailed($problem->getMessage(), 0, $problem);
    }

    private function post(
        string $id,
        string $siteId,
        AlarmChannel $channel,
        string $to,
        string $words,
    ): ResponseInterface {
        if ($this->gateway === '') {
            throw new DeliveryFailed('no gateway is set: ALARM_GATEWAY');
        }

        return $this->http->request('POST', $this->gateway, [
            'json' => ['id' => $id, 'channel' => $channel->value, 'to' => $to, 'words' => $words, 'site' => $siteId],
            'headers' => ['Idempotency-Key' => $id, 'Authorization' => 'Bearer '.FakeGateway::key($this->secret)],
            // What sends it elsewhere did not take it.
            'max_redirects' => 0,
            'timeout' => self::SECONDS,
            'max_duration' => 2 * self::SECONDS,
        ]);
    }

    private static function mail(string $id, string $from, string $to, string $words): Email
    {
        $mail = (new Email())->from($from)->to($to)->subject(mb_substr($words, 0, 120))->text($words);
        // A server that gets it twice knows it by that.
        $mail->getHeaders()->addIdHeader('Message-ID', $id.'@alarm.verjuicer');

        return $mail;
    }
}
