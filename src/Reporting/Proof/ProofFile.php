<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Proof;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Chain\ChainLinks;
use Verjuicer\App\Ledger\Chain\KeyChange;
use Verjuicer\App\Ledger\Chain\KeyLog;
use Verjuicer\App\Ledger\Chain\SealLog;
use Verjuicer\App\Ledger\Chain\SignedSeal;
use Verjuicer\App\Ledger\Chain\SiteKeys;
use Verjuicer\App\Platform\Wording\AssessmentJson;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Proof\Statement;
use Verjuicer\Core\Record\Writer;

/**
 * A proof to check without the application (docs/format/proof.md): records, their verdicts, the rows they were made
 * from, and the links between these and signed seals. Written batch by batch, and signed at its end.
 */
final class ProofFile
{
    private const ROWS_AT_ONCE = 1000;

    public function __construct(
        private readonly Connection $connection,
        private readonly ChainLinks $links,
        private readonly SealLog $seals,
        private readonly KeyLog $keys,
        private readonly SiteKeys $secrets,
        private readonly AssessmentJson $json,
    ) {
    }

    /**
     * @param string $made when, as RFC 3339
     * @param iterable<array{Batch, Assessment}> $batches each judged whole
     * @param (\Closure(): list<array{sha256: string, batches: array<string, string>}>)|null $pages of the packet it is
     *     attached to: the digest of each page's text, and the verdict of each batch that begins on it
     *
     * @return string the file it was written into, in the folder of temporary files
     */
    public function write(
        Site $site,
        string $made,
        string $scope,
        VerificationResult $verified,
        iterable $batches,
        ?\Closure $pages = null,
    ): string {
        // A new seal covers everything recorded until now.
        $this->seals->note($site);
        $path = (string) tempnam(sys_get_temp_dir(), 'proof');
        $out = new SignedLines($path);
        $out->line(['proof' => [
            'format' => 'verjuicer-proof/1',
            'site' => [
                'id' => $site->id->toRfc4122(),
                'name' => $site->name,
                'address' => $site->address,
                'permit' => $site->permit,
            ],
            'made_at' => $made,
            'scope' => $scope,
            'verified' => [
                'at' => $verified->at->rfc3339(),
                'links' => $verified->links,
                'seals' => $verified->seals,
                'breaks' => $verified->breaks,
            ],
            'keys' => array_map(
                static fn (KeyChange $one): array => [
                    'public' => $one->publicKey,
                    'before' => $one->before ?? '',
                    'vouched' => $one->vouched,
                    'reason' => $one->reason,
                ],
                $this->keys->of($site),
            ),
        ]]);
        $needed = ['row_kept' => $this->keptRows($site)];
        foreach ($batches as [$batch, $assessment]) {
            $out->line(['batch' => [
                'id' => $batch->id->toRfc4122(),
                'tag' => $batch->tag,
                'record' => Writer::toData($assessment->record),
                'assessment' => $this->json->of($assessment),
            ]]);
            foreach ($this->rowsOf($batch, $assessment) as $kind => $ids) {
                $needed[$kind] = ($needed[$kind] ?? []) + array_fill_keys($ids, true);
            }
        }
        $places = $this->rows($site, $needed, $out);
        $this->runs($site, $places, $out);
        foreach ($pages === null ? [] : $pages() as $page) {
            $out->line(['page' => ['sha256' => $page['sha256'], 'batches' => (object) $page['batches']]]);
        }
        $digest = $out->digest();
        $out->line(['signature' => [
            'sha256' => $digest,
            'key' => $this->secrets->publicKey($site),
            'signature' => $this->secrets->sign($site, Statement::file('proof', $site->id->toRfc4122(), $digest)),
        ]]);
        $out->close();

        return $path;
    }

    /** @return array<string, true> ids of stored copies of the site, its thermometers, pits and people */
    private function keptRows(Site $site): array
    {
        /** @var list<string> $ids */
        $ids = $this->connection->fetchFirstColumn(
            "SELECT id FROM row_kept WHERE site_id = ? AND of_table IN ('site', 'thermometer', 'pit', 'account')",
            [$site->id->toRfc4122()],
        );

        return array_fill_keys($ids, true);
    }

    /** @return array<string, list<string>> ids by kind */
    private function rowsOf(Batch $batch, Assessment $assessment): array
    {
        $family = [];
        for ($one = $batch; $one !== null; $one = $one->parent) {
            $family[] = $one->id->toRfc4122();
        }
        $events = array_map(static fn ($event): string => $event->id, $assessment->record->events);
        $labels = array_map(static fn ($one): string => $one->id, $assessment->record->thermometers);
        $moments = [];
        foreach ($assessment->record->thermometers as $thermometer) {
            foreach ($thermometer->checks as $check) {
                $moments[] = $check->at->rfc3339();
            }
        }

        return [
            'batch' => $family,
            'event' => $events,
            'site_event' => $events,
            'batch_fact' => $this->ids('SELECT id FROM batch_fact WHERE batch_id IN (:ids)', ['ids' => $family]),
            'thermometer_check' => $labels === [] || $moments === [] ? [] : $this->ids(
                'SELECT c.id FROM thermometer_check c JOIN thermometer t ON t.id = c.thermometer_id '
                .'WHERE t.site_id = :site AND t.label IN (:ids) AND c.at IN (:at)',
                ['ids' => $labels, 'at' => $moments, 'site' => $batch->site->id->toRfc4122()],
            ),
        ];
    }

    /**
     * @param array<string, string|list<string>> $parameters
     *
     * @return list<string>
     */
    private function ids(string $sql, array $parameters): array
    {
        /** @var list<string> */
        return $this->connection->fetchFirstColumn(
            $sql,
            $parameters,
            array_map(
                static fn (): ArrayParameterType => ArrayParameterType::STRING,
                array_filter($parameters, is_array(...)),
            ),
        );
    }

    /**
     * @param array<string, array<string, true>> $needed ids by kind
     *
     * @return array<int, true> places of those whose links say where they stand
     */
    private function rows(Site $site, array $needed, SignedLines $out): array
    {
        return $this->links->inUtc(function () use ($site, $needed, $out): array {
            $places = [];
            foreach ($needed as $kind => $ids) {
                foreach (array_chunk(array_keys($ids), self::ROWS_AT_ONCE) as $some) {
                    foreach ($this->links->ofRows($site, $kind, $some) as $row) {
                        $out->line(['row' => [
                            'kind' => $kind,
                            'id' => $row['row_id'],
                            'form' => $row['form'],
                            'is' => $row['canonical'],
                        ]]);
                        if ($row['form'] === 2) {
                            $places[$row['position']] = true;
                        }
                    }
                }
            }
            ksort($places);

            return $places;
        });
    }

    /**
     * From each row on to the next seal: every link between them, and the seal.
     *
     * @param array<int, true> $places in their order
     */
    private function runs(Site $site, array $places, SignedLines $out): void
    {
        $seals = array_reverse($this->seals->all($site));
        $next = 0;
        /** @var array{int, int}|null $run */
        $run = null;
        foreach (array_keys($places) as $place) {
            if ($run !== null && $place <= $run[1]) {
                continue;
            }
            while (isset($seals[$next]) && $seals[$next]->position < $place) {
                ++$next;
            }
            $to = $seals[$next] ?? null;
            if ($to !== null) {
                $run = [$place, $to->position];
                $this->run($site, $run, $out);
                $out->line(['seal' => self::seal($to)]);
            }
        }
    }

    /** @param array{int, int} $run */
    private function run(Site $site, array $run, SignedLines $out): void
    {
        $before = '';
        foreach ($this->links->between($site, max(1, $run[0] - 1), $run[0] - 1) as $link) {
            $before = $link['hash'];
        }
        $links = [];
        foreach ($this->links->between($site, $run[0], $run[1]) as $link) {
            $links[] = [$link['kind'], $link['row_id'], $link['recorded'], $link['row_digest'] ?? ''];
        }
        $out->line(['run' => ['from' => $run[0], 'before' => $before, 'links' => $links]]);
    }

    /** @return array{position: int, digest: string, at: int, signature: string} */
    private static function seal(SignedSeal $seal): array
    {
        return [
            'position' => $seal->position,
            'digest' => $seal->digest,
            'at' => $seal->at,
            'signature' => $seal->signature,
        ];
    }
}
