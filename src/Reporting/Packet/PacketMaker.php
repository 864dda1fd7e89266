<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Packet;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Process\Process;
use Symfony\Component\Translation\LocaleSwitcher;
use Symfony\Component\Uid\Uuid;
use Twig\Environment;
use Verjuicer\App\Catalogue\Thermometer\Thermometer;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\BatchFacts;
use Verjuicer\App\Ledger\Chain\SiteChain;
use Verjuicer\App\Ledger\Chain\SiteKeys;
use Verjuicer\App\Ledger\Check\AccuracyCheck;
use Verjuicer\App\Ledger\Check\AccuracyChecks;
use Verjuicer\App\Operations\Alarm\Alarm;
use Verjuicer\App\Operations\Alarm\Alarms;
use Verjuicer\App\Operations\Batch\BatchPicture;
use Verjuicer\App\Operations\Batch\CookView;
use Verjuicer\App\Operations\Batch\RecordLog;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Page\ConfiguredAddress;
use Verjuicer\App\Platform\Pdf\Attachments;
use Verjuicer\App\Platform\Wording\FindingText;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Reporting\DailyLog\LateReadings;
use Verjuicer\App\Reporting\Exchange\Imports;
use Verjuicer\App\Reporting\Proof\ProofFile;
use Verjuicer\App\Reporting\Proof\Verification;
use Verjuicer\App\Reporting\Proof\VerificationResult;
use Verjuicer\App\Reporting\Search\Finder;
use Verjuicer\App\Site\People\SiteUnitPreferences;
use Verjuicer\App\Site\Settings\SiteRules;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Food\TimePlan;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Proof\PacketTail;
use Verjuicer\Core\Proof\PageText;
use Verjuicer\Core\Proof\ProofCheck;
use Verjuicer\Core\Proof\Statement;
use Verjuicer\Core\Ruleset\CookingCategory;
use Verjuicer\Core\Ruleset\RuleSetLibrary;
use Verjuicer\Core\Ruleset\ThermometerRules;

/**
 * Makes the PDF of a packet: cover, verdicts by rule, every batch with its picture, events, findings and actions,
 * checks, signatures, rules.
 */
final readonly class PacketMaker
{
    /** More than an inspector would leaf through; asked for in parts. */
    private const MOST_BATCHES = 2000;
    private const PDF_SECONDS = 900;

    public function __construct(
        private Packets $packets,
        private Connection $connection,
        private EntityManagerInterface $entities,
        private Assessments $assessments,
        private BatchFacts $facts,
        private Thermometers $thermometers,
        private AccuracyChecks $thermometerChecks,
        private RuleSetLibrary $ruleSets,
        private SiteRules $rules,
        private SiteUnitPreferences $habits,
        private LocaleSwitcher $locale,
        private SiteChain $chain,
        private SiteKeys $keys,
        private Verification $verification,
        private ProofFile $proof,
        private Finder $finder,
        private Alarms $alarms,
        private PacketSurroundings $around,
        private PacketSignatures $signatures,
        private Imports $imports,
        private FindingText $findings,
        private MeasureFormatter $figures,
        private Environment $twig,
        private ConfiguredAddress $address,
        private Now $now,
        #[Autowire('%app.packet_volume%')] private int $volume,
    ) {
    }

    /** @return list<list<string>> ids of the batches of each volume: at least one, perhaps of none */
    public function volumes(Site $site, PacketScope $scope): array
    {
        $ids = $this->batches($site, $scope);

        return $ids === [] ? [[]] : array_chunk($ids, max(1, $this->volume));
    }

    /** @return string|null the obstacle to making it, as a key of a sentence */
    public function problem(Site $site, PacketScope $scope): ?string
    {
        $count = \count($this->batches($site, $scope));

        return match (true) {
            $count > self::MOST_BATCHES => 'packet.problem.most',
            $count === 0 && $scope->batch.$scope->lot.$scope->product !== '' => 'packet.problem.none',
            default => null,
        };
    }

    /** In the units of its site and one language, chosen with the request. */
    public function make(Packet $packet): void
    {
        $site = $this->entities->find(Site::class, Uuid::fromString($packet->siteId));
        \assert($site !== null, 'a packet is of a site');
        $this->habits->workFor($site);
        $this->locale->runWithLocale($packet->language->value, fn () => $this->makeOf($packet, $site));
    }

    private function makeOf(Packet $packet, Site $site): void
    {
        $ids = $packet->scope->ids === [] ? $this->batches($site, $packet->scope) : $packet->scope->ids;
        $made = $this->now->instant();
        $verified = $this->verification->of($site, judges: false);
        $pages = new PacketPages($this->rules->of($site));
        $pdf = '';
        $file = $this->proof->write(
            $site,
            $made->rfc3339(),
            $packet->scope->words(),
            $verified,
            $this->laidOut($packet, $site, $ids, $pages),
            function () use ($packet, $site, $ids, $pages, $made, $verified, &$pdf): array {
                $pdf = $this->pdf($packet, $site, $ids, $pages, $made, $verified);

                return self::pageLines($pdf, $pages);
            },
        );
        $proof = (string) file_get_contents($file);
        unlink($file);
        $signed = $this->signed($site, $pdf, $proof, $pages, $made);
        $this->packets->finish($packet, $made, $signed);
    }

    /** @param list<string> $ids */
    private function pdf(
        Packet $packet,
        Site $site,
        array $ids,
        PacketPages $pages,
        Instant $made,
        VerificationResult $verified,
    ): string {
        [$from, $to] = self::range($site, $packet->scope);
        $html = $this->twig->render('reporting/packet/packet.html.twig', [
            'packet' => $packet,
            'footer' => preg_replace('/[^\pL\pN ,.–-]/u', ' ', $site->name.', '.$packet->scope->words()),
            'site' => $site,
            'made' => $made,
            'pages' => $pages,
            'categories' => CookingCategory::cases(),
            'plans' => TimePlan::cases(),
            'lots' => $packet->scope->isFirst()
                ? $this->around->lots($site, $ids, $packet->scope->isWhole() ? [$from, $to] : null)
                : [],
            'pits' => $packet->scope->isFirst() ? $this->around->pits($site, $from, $to) : [],
            'people' => $this->around->people($site),
            'in_force' => $this->rules->of($site),
            'checks' => $packet->scope->isFirst() ? $this->checks($site, $from, $to) : [],
            'alarms' => $packet->scope->isFirst() ? array_map(
                fn (Alarm $one): array => ['alarm' => $one, 'history' => $this->alarms->history($one->id)],
                $this->alarms->about($site, $ids, $from, $to),
            ) : [],
            'signatures' => $packet->scope->isFirst() ? $this->signatures->of($site, $packet->scope) : [],
            'unsigned_days' => $packet->scope->isFirst() ? $this->signatures->missing($site, $packet->scope) : [],
            'procedures' => $this->around->procedures($site, array_values($pages->procedures)),
            'tolerance' => $this->rules->of($site)->get(ThermometerRules::class)->tolerance,
            'seal' => $this->chain->seal($site),
            'key' => $this->keys->publicKey($site),
            'checker' => $this->address->of('checker', []),
            'verified' => $verified,
            'unfinished' => $this->imports->unfinished($site),
        ]);
        $command = ['weasyprint', '--pdf-variant', 'pdf/a-3b', '-', '-'];

        return (new Process($command, null, null, $html, self::PDF_SECONDS))->mustRun()->getOutput();
    }

    /** @return list<array{sha256: string, batches: array<string, string>}> */
    private static function pageLines(string $pdf, PacketPages $pages): array
    {
        $texts = PageText::of($pdf) ?? throw new \UnexpectedValueException('The text of the packet cannot be read.');

        return array_map(static function (string $text) use ($pages): array {
            $batches = [];
            foreach ($pages->contents as $one) {
                if (str_contains($text, ProofCheck::heading($one['code']))) {
                    $batches[$one['id']] = $one['verdict'];
                }
            }

            return ['sha256' => hash('sha256', $text), 'batches' => $batches];
        }, $texts);
    }

    /**
     * Each batch is judged once, for its pages and for the proof.
     *
     * @param list<string> $ids
     *
     * @return \Generator<array{Batch, Assessment}>
     */
    private function laidOut(Packet $packet, Site $site, array $ids, PacketPages $pages): \Generator
    {
        foreach ($ids as $index => $id) {
            $batch = $this->entities->find(Batch::class, Uuid::fromString($id));
            if ($batch === null) {
                continue;
            }
            $assessment = $this->assessments->whole($batch);
            $pages->add(
                $batch,
                $assessment,
                $this->ruleSets->get($batch->ruleSet),
                fn (Finding $finding): string => $this->findings->sentence($finding, $assessment),
                fn (array $findings): string => $this->twig->render('reporting/packet/_batch.html.twig', [
                    'findings' => $findings,
                    'batch' => $batch,
                    'site' => $site,
                    'assessment' => $assessment,
                    'picture' => BatchPicture::of($assessment, $this->figures),
                    'log' => array_reverse(RecordLog::of($assessment->record, $assessment->rules->house()->lateEntry)),
                    'allergens' => CookView::allergens($assessment),
                    'is_unknown' => CookView::areAllergensUnknown($assessment),
                    'late' => LateReadings::among($assessment->timeline->readings->all(), $assessment),
                    'facts' => $this->facts->of($batch),
                ]),
            );
            $this->packets->progress($packet, $index + 1, \count($ids));
            yield [$batch, $assessment];
            $this->entities->detach($batch);
        }
    }

    /** With the data for checkers attached, and the signature of everything at its end. */
    private function signed(Site $site, string $pdf, string $proof, PacketPages $pages, Instant $made): string
    {
        $attached = Attachments::add(
            $pdf,
            [
                [
                    'name' => 'proof.ndjson',
                    'type' => 'application/x-ndjson',
                    'description' => 'Records, what they show, the rows they were made of, links and seals, signed',
                    'content' => $proof,
                ],
                [
                    'name' => 'records.ndjson',
                    'type' => 'application/x-ndjson',
                    'description' => 'The records in the open format, one a line',
                    'content' => $pages->records,
                ],
            ],
            new \DateTimeImmutable($made->rfc3339()),
        );
        $id = $site->id->toRfc4122();

        return $attached.PacketTail::of(
            $attached,
            $id,
            $this->keys->publicKey($site),
            $this->keys->sign($site, Statement::file('packet', $id, hash('sha256', $attached))),
        );
    }

    /** @return list<string> by the time they were begun; none that is not all taken in: it would be judged by a part */
    private function batches(Site $site, PacketScope $scope): array
    {
        [$from, $to] = self::range($site, $scope);
        $and = '';
        $parameters = [
            'site' => $site->id->toRfc4122(),
            'from' => $from->rfc3339(),
            'to' => $to->rfc3339(),
            'most' => self::MOST_BATCHES + 1,
        ];
        if ($scope->batch !== '') {
            $and
                .= ' AND (b.code = :batch '
.'OR EXISTS (SELECT 1 FROM batch p WHERE p.id = b.parent_id AND p.code = :batch))';
            $parameters['batch'] = $scope->batch;
        }
        if ($scope->lot !== '') {
            $ofLot = $this->finder->ofLotNumber($site, $scope->lot);
            if ($ofLot === []) {
                return [];
            }
            $and .= ' AND b.id IN (:lot)';
            $parameters['lot'] = $ofLot;
        }
        if ($scope->product !== '') {
            $and .= ' AND b.product_name = :product';
            $parameters['product'] = $scope->product;
        }

        /** @var list<string> $ids */
        $ids = $this->connection->fetchFirstColumn(
            <<<SQL
            SELECT b.id FROM batch b LEFT JOIN batch_report r ON r.batch_id = b.id
            WHERE b.site_id = :site AND b.begun_at < :to AND (r.ended_at IS NULL OR r.ended_at >= :from) $and
              ORDER BY b.begun_at, b.code LIMIT :most
            SQL,
            $parameters,
            isset($parameters['lot']) ? ['lot' => ArrayParameterType::STRING] : [],
        );

        return array_values(array_diff($ids, array_keys($this->imports->unfinished($site))));
    }

    /** @return array{Instant, Instant} */
    private static function range(Site $site, PacketScope $scope): array
    {
        $from = LocalDate::ofIso($scope->from);
        $to = LocalDate::ofIso($scope->to);
        \assert($from !== null && $to !== null, 'a scope is kept with its days');

        return [$from->startIn($site->zone()), $to->plusDays(1)->startIn($site->zone())];
    }

    /** @return list<array{thermometer: Thermometer, checks: list<AccuracyCheck>}> */
    private function checks(Site $site, Instant $from, Instant $to): array
    {
        return array_map(
            fn (Thermometer $thermometer): array => [
                'thermometer' => $thermometer,
                'checks' => $this->thermometerChecks->of($thermometer, $from, $to),
            ],
            $this->thermometers->of($site),
        );
    }
}
