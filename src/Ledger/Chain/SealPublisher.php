<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Doctrine\DBAL\Connection;
use Psr\Log\LoggerInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\Mailer\MailerInterface;
use Symfony\Component\Mime\Email;
use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\Site;

/**
 * Publishes the daily seals once a day is closed: by mail, and to a second place (a folder of another machine). The
 * progress of each way is kept with the key; a failed way is tried again.
 */
final readonly class SealPublisher
{
    private const RETRY_SECONDS = 600;

    public function __construct(
        private Connection $connection,
        private SealLog $seals,
        private SiteKeys $keys,
        private MailerInterface $mailer,
        private TranslatorInterface $translator,
        private Filesystem $files,
        private LoggerInterface $logger,
        private Now $now,
        #[Autowire(env: 'VERJUICER_SEALS_TO')] private string $folder,
        #[Autowire(env: 'ALARM_MAIL_FROM')] private string $from,
    ) {
    }

    public function send(Site $site): void
    {
        if ($site->sealMail !== '') {
            $this->along($site, 'mail', fn (SignedSeal $seal, string $day) => $this->mail($site, $seal, $day));
        }
        if ($this->folder !== '') {
            $this->along($site, 'folder', function (SignedSeal $seal) use ($site): void {
                $this->files->mkdir($this->folder);
                $this->files->appendToFile($this->place($site), $seal->line()."\n", true);
            });
        }
    }

    /** @return list<SignedSeal> seals in the second place */
    public function elsewhere(Site $site): array
    {
        return $this->folder === '' ? [] : SealLog::read($this->place($site));
    }

    /** @param \Closure(SignedSeal, string): void $hand takes a seal and its day */
    private function along(Site $site, string $way, \Closure $hand): void
    {
        $path = $this->keys->path($site, ".$way");
        $now = $this->now->instant()->epoch;
        [$sent, $tried] = self::state($path);
        if ($tried !== 0 && $now - $tried < self::RETRY_SECONDS) {
            return;
        }
        /** @var list<array{day: string, position: int, digest: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT day::text AS day, last_position AS position, digest FROM day_close '
            .'WHERE site_id = ? AND last_position > ? ORDER BY last_position',
            [$site->id->toRfc4122(), $sent],
        );
        try {
            foreach ($rows as $row) {
                $hand($this->seals->sign($site, new Seal($row['position'], $row['digest'])), $row['day']);
                $this->files->dumpFile($path, "{$row['position']} 0");
                $sent = $row['position'];
            }
        } catch (\Throwable $problem) {
            $this->files->dumpFile($path, "$sent $now");
            $this->logger->error('The seal of a day did not leave ({way}); it is tried again.', [
                'way' => $way,
                'exception' => $problem,
            ]);
        }
    }

    /** @return array{int, int} how far it came, and when it was last tried in vain */
    private static function state(string $path): array
    {
        $parts = is_file($path) ? explode(' ', trim((string) file_get_contents($path))) : [];

        return [(int) ($parts[0] ?? 0), (int) ($parts[1] ?? 0)];
    }

    private function mail(Site $site, SignedSeal $seal, string $day): void
    {
        $values = [
            '{site}' => $site->name,
            '{day}' => $day,
            '{position}' => (string) $seal->position,
            '{digest}' => $seal->digest,
            '{key}' => $this->keys->publicKey($site),
            '{signature}' => $seal->signature,
        ];
        $this->mailer->send(
            (new Email())
                ->from($this->from)
                ->to(...explode(', ', $site->sealMail))
                ->subject($this->translator->trans('seal_mail.subject', $values))
                ->text($this->translator->trans('seal_mail.words', $values))
                ->attach($seal->line()."\n", "$day.seals", 'text/plain'),
        );
    }

    private function place(Site $site): string
    {
        return $this->folder.'/'.$site->id->toRfc4122().'.seals';
    }
}
