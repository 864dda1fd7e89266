<?php

declare(strict_types=1);

namespace Verjuicer\Core\Proof;

/**
 * Checks a file of proof (docs/format/proof.md) by itself: its signature, the keys, the seals, the links between each
 * row and a seal, and that every record in it matches its rows. `$judge` decides whether the verdicts follow from the
 * records.
 */
final class ProofCheck
{
    private readonly ProofRows $rows;

    /** @var array<string, string> SHA-256 of each row in its canonical form, by "kind id" */
    private array $digests = [];

    /** @var array<string, true> those of an older form */
    private array $older = [];

    /** @var array<int, array{string, string, string}> digest, moment and signature of seals by position */
    private array $seals = [];

    /** @var list<string> public keys */
    private array $keys = [];

    /** @var list<\stdClass> */
    private array $runs = [];

    /** @var list<\stdClass> */
    private array $batches = [];

    /** @var list<\stdClass> in the order of the packet */
    private array $pages = [];

    private ProofReport $checked;

    /**
     * @param \Closure(\stdClass, string): array<string, string>|null $judge the verdicts of a record at a moment, by
     *     rule, and '' for that of all; empty where it cannot
     */
    public function __construct(private readonly ?\Closure $judge = null)
    {
        $this->checked = new ProofReport();
        $this->rows = new ProofRows();
    }

    /**
     * @param iterable<string> $lines each with its line end
     * @param list<string>|null $texts of the pages the proof is attached to, by PageText; null if there are none
     */
    public function of(iterable $lines, ?array $texts = null): ProofReport
    {
        $before = hash_init('sha256');
        $isSigned = false;
        foreach ($lines as $line) {
            $data = json_decode($line);
            if (!$data instanceof \stdClass || $isSigned) {
                $this->checked->add($isSigned ? ProofFault::AlteredFile : ProofFault::NotAProof);

                return $this->checked;
            }
            if (isset($data->signature)) {
                $this->signature(UntrustedMembers::object($data, 'signature'), hash_final($before));
                $isSigned = true;
            } else {
                hash_update($before, $line);
                $this->take($data);
            }
        }
        if (!$isSigned) {
            $this->checked->add(ProofFault::NotSigned);
        }
        $this->chain();
        foreach ($this->batches as $batch) {
            $this->batch($batch);
        }
        if ($texts !== null && $this->pages !== []) {
            $this->pages($texts);
        }

        return $this->checked;
    }

    private function take(\stdClass $data): void
    {
        if (isset($data->proof)) {
            $this->head(UntrustedMembers::object($data, 'proof'));
        } elseif (isset($data->row)) {
            $row = UntrustedMembers::object($data, 'row');
            $canonical = UntrustedMembers::text($row, 'is');
            $of = UntrustedMembers::text($row, 'kind').' '.UntrustedMembers::text($row, 'id');
            $content = json_decode($canonical, true);
            /** @var array<string, mixed> $content */
            $content = \is_array($content) ? $content : [];
            $this->rows->add(UntrustedMembers::text($row, 'kind'), UntrustedMembers::text($row, 'id'), $content);
            $this->digests[$of] = hash('sha256', $canonical);
            if (($row->form ?? 2) === 1) {
                $this->older[$of] = true;
                ++$this->checked->older;
            }
            if (($content['id'] ?? null) !== UntrustedMembers::text($row, 'id')) {
                $this->checked->add(ProofFault::RowAltered, $of);
            }
        } elseif (isset($data->seal)) {
            $seal = UntrustedMembers::object($data, 'seal');
            $this->seals[UntrustedMembers::whole($seal, 'position')] = [
                UntrustedMembers::text($seal, 'digest'),
                (string) UntrustedMembers::whole($seal, 'at'),
                UntrustedMembers::text($seal, 'signature'),
            ];
        } elseif (isset($data->run)) {
            $this->runs[] = UntrustedMembers::object($data, 'run');
        } elseif (isset($data->batch)) {
            $this->batches[] = UntrustedMembers::object($data, 'batch');
        } elseif (isset($data->page)) {
            $this->pages[] = UntrustedMembers::object($data, 'page');
        }
    }

    private function head(\stdClass $proof): void
    {
        $site = UntrustedMembers::object($proof, 'site');
        $this->checked->site = UntrustedMembers::text($site, 'name');
        $this->checked->siteId = UntrustedMembers::text($site, 'id');
        $this->checked->made = UntrustedMembers::text($proof, 'made_at');
        $verified = UntrustedMembers::object($proof, 'verified');
        foreach (UntrustedMembers::list($verified, 'breaks') as $break) {
            $this->checked->add(ProofFault::SaidBroken, \is_string($break) ? $break : '');
        }
        foreach (UntrustedMembers::list($proof, 'keys') as $key) {
            $key = $key instanceof \stdClass ? $key : new \stdClass();
            $public = UntrustedMembers::text($key, 'public');
            $before = UntrustedMembers::text($key, 'before');
            $words = Statement::key($this->checked->siteId, $before, $public);
            if ($before !== '' && !Statement::isSignedBy($before, $words, UntrustedMembers::text($key, 'vouched'))) {
                $this->checked->add(ProofFault::KeyUnvouched, UntrustedMembers::text($key, 'reason'));
            }
            $this->keys[] = $public;
        }
    }

    private function signature(\stdClass $signature, string $digest): void
    {
        $this->checked->key = UntrustedMembers::text($signature, 'key');
        if (UntrustedMembers::text($signature, 'sha256') !== $digest) {
            $this->checked->add(ProofFault::AlteredFile);
        }
        $words = Statement::file('proof', $this->checked->siteId, $digest);
        if (!Statement::isSignedBy($this->checked->key, $words, UntrustedMembers::text($signature, 'signature'))) {
            $this->checked->add(ProofFault::NotSigned);
        }
        if (!\in_array($this->checked->key, $this->keys, true)) {
            $this->checked->add(ProofFault::KeyNotNamed);
        }
    }

    /** Each run of links leads from the rows in it to a seal. */
    private function chain(): void
    {
        $linked = [];
        foreach ($this->runs as $run) {
            $place = UntrustedMembers::whole($run, 'from') - 1;
            $hash = (string) @hex2bin(UntrustedMembers::text($run, 'before'));
            foreach (UntrustedMembers::list($run, 'links') as $link) {
                [$kind, $id, $recorded, $digest] = \is_array($link) ? array_pad($link, 4, '') : ['', '', '', ''];
                [$kind, $id] = [\is_string($kind) ? $kind : '', \is_string($id) ? $id : ''];
                [$recorded, $digest] = [\is_string($recorded) ? $recorded : '', \is_string($digest) ? $digest : ''];
                $words = Statement::link($this->checked->siteId, ++$place, $kind, $id, $recorded, $digest);
                $hash = hash('sha256', $hash.$words, true);
                $linked["$kind $id"] = $digest;
                ++$this->checked->links;
            }
            $seal = $this->seals[$place] ?? null;
            if ($seal === null || $seal[0] !== bin2hex($hash)) {
                $this->checked->add(ProofFault::ChainBroken, (string) $place);
            }
        }
        foreach ($this->seals as $position => [$digest, $at, $signature]) {
            $words = Statement::seal($this->checked->siteId, $position, $digest, (int) $at);
            $of = array_filter(
                $this->keys,
                static fn (string $key): bool => Statement::isSignedBy($key, $words, $signature),
            );
            ++$this->checked->seals;
            if ($of === []) {
                $this->checked->add(ProofFault::SealNotSigned, (string) $position);
            }
        }
        foreach (array_diff_key($this->digests, $this->older) as $of => $digest) {
            if (!isset($linked[$of])) {
                $this->checked->add(ProofFault::RowNotChained, $of);
            } elseif ($linked[$of] !== $digest) {
                $this->checked->add(ProofFault::RowAltered, $of);
            }
        }
    }

    /**
     * Every page reads as it was signed, and every batch stands on one with the verdict of its assessment.
     *
     * @param list<string> $texts
     */
    private function pages(array $texts): void
    {
        $this->checked->pages = \count($this->pages);
        if (\count($texts) !== \count($this->pages)) {
            $this->checked->add(ProofFault::PageDiffers, (string) \count($texts));
        }
        $verdicts = [];
        foreach ($this->pages as $index => $page) {
            $text = $texts[$index] ?? '';
            if (UntrustedMembers::text($page, 'sha256') !== hash('sha256', $text)) {
                $this->checked->add(ProofFault::PageDiffers, (string) ($index + 1));
            }
            foreach ((array) UntrustedMembers::object($page, 'batches') as $id => $verdict) {
                $verdicts[$id][] = [$verdict, $text];
            }
        }
        foreach ($this->batches as $batch) {
            $code = UntrustedMembers::text(
                UntrustedMembers::object(UntrustedMembers::object($batch, 'record'), 'batch'),
                'code',
            );
            $verdict = UntrustedMembers::text(UntrustedMembers::object($batch, 'assessment'), 'verdict');
            $shown = array_filter(
                $verdicts[UntrustedMembers::text($batch, 'id')] ?? [],
                static fn (array $one): bool => $one[0] === $verdict
                    && str_contains($one[1], self::heading($code)),
            );
            if ($shown === []) {
                $this->checked->add(ProofFault::PageDiffers, $code);
            }
        }
    }

    /** The start of a batch's heading on its page, without white space. */
    public static function heading(string $code): string
    {
        return PageText::bare($code).'·';
    }

    private function batch(\stdClass $data): void
    {
        ++$this->checked->batches;
        $record = UntrustedMembers::object($data, 'record');
        $code = UntrustedMembers::text(UntrustedMembers::object($record, 'batch'), 'code');
        $inputs = new RecordInputs($this->rows, $this->checked);
        $inputs->compare($record, UntrustedMembers::text($data, 'id'), $code);
        if ($this->judge === null) {
            return;
        }
        $assessment = UntrustedMembers::object($data, 'assessment');
        $said = [
            '' => UntrustedMembers::text($assessment, 'verdict'),
        ] + (array) UntrustedMembers::object($assessment, 'rules_judged');
        $verdicts = ($this->judge)($record, UntrustedMembers::text($assessment, 'as_of'));
        ksort($said);
        ksort($verdicts);
        if ($verdicts !== $said) {
            $this->checked->add(ProofFault::VerdictDiffers, $code);
        }
    }
}
