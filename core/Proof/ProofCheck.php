<?php

declare(strict_types=1);

namespace Verjuicer\Core\Proof;

/**
 * Checks a file of proof (docs/format/proof.md) with nothing but itself: its signature, the keys, the seals, the links
 * between each row and a seal, and that every record in it says what its rows say. Whether the verdicts follow from the
 * records is asked of `$judge`.
 */
final class ProofCheck
{
    private readonly Rows $rows;

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

    private Checked $checked;

    /**
     * @param \Closure(\stdClass, string): array<string, string>|null $judge the verdicts of a record at a moment, by
     *     rule, and '' for that of all; empty where it cannot
     */
    public function __construct(private readonly ?\Closure $judge = null)
    {
        $this->checked = new Checked();
        $this->rows = new Rows();
    }

    /**
     * @param iterable<string> $lines each with its line end
     * @param list<string>|null $texts of the pages the proof is attached to, by PageText; null if there are none
     */
    public function of(iterable $lines, ?array $texts = null): Checked
    {
        $before = hash_init('sha256');
        $isSigned = false;
        foreach ($lines as $line) {
            $data = json_decode($line);
            if (!$data instanceof \stdClass || $isSigned) {
                $this->checked->add($isSigned ? Fault::AlteredFile : Fault::NotAProof);

                return $this->checked;
            }
            if (isset($data->signature)) {
                $this->signature(Given::object($data, 'signature'), hash_final($before));
                $isSigned = true;
            } else {
                hash_update($before, $line);
                $this->take($data);
            }
        }
        if (!$isSigned) {
            $this->checked->add(Fault::NotSigned);
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
            $this->head(Given::object($data, 'proof'));
        } elseif (isset($data->row)) {
            $row = Given::object($data, 'row');
            $canonical = Given::text($row, 'is');
            $of = Given::text($row, 'kind').' '.Given::text($row, 'id');
            $content = json_decode($canonical, true);
            /** @var array<string, mixed> $content */
            $content = \is_array($content) ? $content : [];
            $this->rows->add(Given::text($row, 'kind'), Given::text($row, 'id'), $content);
            $this->digests[$of] = hash('sha256', $canonical);
            if (($row->form ?? 2) === 1) {
                $this->older[$of] = true;
                ++$this->checked->older;
            }
            if (($content['id'] ?? null) !== Given::text($row, 'id')) {
                $this->checked->add(Fault::RowAltered, $of);
            }
        } elseif (isset($data->seal)) {
            $seal = Given::object($data, 'seal');
            $this->seals[Given::whole($seal, 'position')] = [
                Given::text($seal, 'digest'),
                (string) Given::whole($seal, 'at'),
                Given::text($seal, 'signature'),
            ];
        } elseif (isset($data->run)) {
            $this->runs[] = Given::object($data, 'run');
        } elseif (isset($data->batch)) {
            $this->batches[] = Given::object($data, 'batch');
        } elseif (isset($data->page)) {
            $this->pages[] = Given::object($data, 'page');
        }
    }

    private function head(\stdClass $proof): void
    {
        $site = Given::object($proof, 'site');
        $this->checked->site = Given::text($site, 'name');
        $this->checked->siteId = Given::text($site, 'id');
        $this->checked->made = Given::text($proof, 'made_at');
        $verified = Given::object($proof, 'verified');
        foreach (Given::list($verified, 'breaks') as $break) {
            $this->checked->add(Fault::SaidBroken, \is_string($break) ? $break : '');
        }
        foreach (Given::list($proof, 'keys') as $key) {
            $key = $key instanceof \stdClass ? $key : new \stdClass();
            $public = Given::text($key, 'public');
            $before = Given::text($key, 'before');
            $words = Statement::key($this->checked->siteId, $before, $public);
            if ($before !== '' && !Statement::isSignedBy($before, $words, Given::text($key, 'vouched'))) {
                $this->checked->add(Fault::KeyUnvouched, Given::text($key, 'reason'));
            }
            $this->keys[] = $public;
        }
    }

    private function signature(\stdClass $signature, string $digest): void
    {
        $this->checked->key = Given::text($signature, 'key');
        if (Given::text($signature, 'sha256') !== $digest) {
            $this->checked->add(Fault::AlteredFile);
        }
        $words = Statement::file('proof', $this->checked->siteId, $digest);
        if (!Statement::isSignedBy($this->checked->key, $words, Given::text($signature, 'signature'))) {
            $this->checked->add(Fault::NotSigned);
        }
        if (!\in_array($this->checked->key, $this->keys, true)) {
            $this->checked->add(Fault::KeyNotNamed);
        }
    }

    /** Each run of links leads from the rows in it to a seal. */
    private function chain(): void
    {
        $linked = [];
        foreach ($this->runs as $run) {
            $place = Given::whole($run, 'from') - 1;
            $hash = (string) @hex2bin(Given::text($run, 'before'));
            foreach (Given::list($run, 'links') as $link) {
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
                $this->checked->add(Fault::ChainBroken, (string) $place);
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
                $this->checked->add(Fault::SealNotSigned, (string) $position);
            }
        }
        foreach (array_diff_key($this->digests, $this->older) as $of => $digest) {
            if (!isset($linked[$of])) {
                $this->checked->add(Fault::RowNotChained, $of);
            } elseif ($linked[$of] !== $digest) {
                $this->checked->add(Fault::RowAltered, $of);
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
            $this->checked->add(Fault::PageDiffers, (string) \count($texts));
        }
        $verdicts = [];
        foreach ($this->pages as $index => $page) {
            $text = $texts[$index] ?? '';
            if (Given::text($page, 'sha256') !== hash('sha256', $text)) {
                $this->checked->add(Fault::PageDiffers, (string) ($index + 1));
            }
            foreach ((array) Given::object($page, 'batches') as $id => $verdict) {
                $verdicts[$id][] = [$verdict, $text];
            }
        }
        foreach ($this->batches as $batch) {
            $code = Given::text(Given::object(Given::object($batch, 'record'), 'batch'), 'code');
            $verdict = Given::text(Given::object($batch, 'assessment'), 'verdict');
            $shown = array_filter(
                $verdicts[Given::text($batch, 'id')] ?? [],
                static fn (array $one): bool => $one[0] === $verdict
                    && str_contains($one[1], self::heading($code)),
            );
            if ($shown === []) {
                $this->checked->add(Fault::PageDiffers, $code);
            }
        }
    }

    /** What the heading of a batch on its page begins with, without white space. */
    public static function heading(string $code): string
    {
        return PageText::bare($code).'·';
    }

    private function batch(\stdClass $data): void
    {
        ++$this->checked->batches;
        $record = Given::object($data, 'record');
        $code = Given::text(Given::object($record, 'batch'), 'code');
        $inputs = new RecordInputs($this->rows, $this->checked);
        $inputs->compare($record, Given::text($data, 'id'), $code);
        if ($this->judge === null) {
            return;
        }
        $assessment = Given::object($data, 'assessment');
        $said = ['' => Given::text($assessment, 'verdict')] + (array) Given::object($assessment, 'rules_judged');
        $verdicts = ($this->judge)($record, Given::text($assessment, 'as_of'));
        ksort($said);
        ksort($verdicts);
        if ($verdicts !== $said) {
            $this->checked->add(Fault::VerdictDiffers, $code);
        }
    }
}
