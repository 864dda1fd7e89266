<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Reporting\Proof\ProofFile;
use Verjuicer\App\Reporting\Proof\Verification;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Measure\Instant;

/** Records of a range of days with their proof, signed: checked by `bin/verify-packet` and the page that checks. */
final readonly class ProofExport
{
    public function __construct(
        private RecordExport $export,
        private Assessments $assessments,
        private Verification $verification,
        private ProofFile $proof,
        private Now $now,
    ) {
    }

    /** @return \Generator<string> lines of `verjuicer-proof/1` */
    public function lines(Site $site, Instant $from, Instant $to): \Generator
    {
        $path = $this->proof->write(
            $site,
            $this->now->instant()->rfc3339(),
            $from->rfc3339().' – '.$to->rfc3339(),
            $this->verification->of($site, judges: false),
            $this->judged($site, $from, $to),
        );
        try {
            foreach (new \SplFileObject($path) as $line) {
                yield \is_string($line) ? $line : '';
            }
        } finally {
            unlink($path);
        }
    }

    /** @return \Generator<array{Batch, Assessment}> begun in that time */
    private function judged(Site $site, Instant $from, Instant $to): \Generator
    {
        foreach ($this->export->batches($site, $from, $to) as $batch) {
            yield [$batch, $this->assessments->whole($batch)];
        }
    }
}
