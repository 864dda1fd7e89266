<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Proof;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Proof\PacketTail;
use Verjuicer\Core\Proof\ProofCheck;
use Verjuicer\Core\Proof\ProofFault;
use Verjuicer\Core\Proof\Statement;

/** Whoever alters a proof, or makes a false one, is found: with the key, without it, and with a key of their own. */
final class ProofCheckTest extends TestCase
{
    public function testWhatWasMadeHolds(): void
    {
        $checked = (new ProofCheck())->of((new MadeProof())->signed());
        self::assertSame([], $checked->faults);
        self::assertSame([1, 3, 8, 1], [$checked->batches, $checked->events, $checked->links, $checked->seals]);
        self::assertSame('Quarry Lane Smokehouse', $checked->site);
    }

    /**
     * Whoever has the key signs anew what they altered: it does not come to the seals.
     *
     * @param \Closure(MadeProof): void $alter
     */
    #[DataProvider('alterations')]
    public function testWhatIsAlteredAndSignedAnewIsFound(ProofFault $fault, \Closure $alter): void
    {
        $proof = new MadeProof();
        $alter($proof);
        $faults = array_column((new ProofCheck())->of($proof->signed())->faults, 'fault');
        self::assertContains($fault, $faults, implode(', ', array_column($faults, 'value')));
    }

    /** @return iterable<string, array{ProofFault, \Closure(MadeProof): void}> */
    public static function alterations(): iterable
    {
        $say = static fn (string $path, mixed $value): \Closure => static function (MadeProof $proof) use (
            $path,
            $value,
        ): void {
            $place = &$proof->lines;
            foreach (explode('.', $path) as $name) {
                \assert(\is_array($place));
                $place = &$place[$name];
            }
            $place = $value;
        };
        $record = '1.batch.record';
        $event = "$record.batch.events.1";
        yield 'a temperature of the record' => [ProofFault::EventDiffers, $say("$event.temp.f", 165)];
        yield 'a temperature said in the other unit' => [ProofFault::EventDiffers, $say("$event.temp", ['c' => 31.1])];
        yield 'its time' => [ProofFault::EventDiffers, $say("$event.at", MadeProof::at('10:01'))];
        yield 'when it was written down' => [
            ProofFault::EventDiffers,
            $say("$event.recorded_at", MadeProof::at('10:01')),
        ];
        yield 'who' => [ProofFault::EventDiffers, $say("$event.by", 'XX')];
        yield 'its kind' => [ProofFault::EventDiffers, $say("$event.type", 'note')];
        yield 'a member more' => [ProofFault::EventDiffers, $say("$event.replaces", MadeProof::id(11))];
        yield 'what the pit read' => [ProofFault::EventDiffers, $say("$record.batch.events.2.temp.f", 225)];
        yield 'an event nobody wrote' => [ProofFault::EventNotWritten, $say("$event.id", MadeProof::id(99))];
        yield 'an event left out' => [
            ProofFault::EventLeftOut,
            static function (MadeProof $proof): void {
                /** @var array{batch: array{record: array{batch: array{events: list<mixed>}}}} $line */
                $line = $proof->lines[1];
                unset($line['batch']['record']['batch']['events'][1]);
                $proof->lines[1] = $line;
            },
        ];
        yield 'a check that passed' => [
            ProofFault::CheckNotWritten,
            $say("$record.thermometers.0.checks.0.read.f", 32),
        ];
        yield 'a check of another thermometer' => [
            ProofFault::CheckNotWritten,
            $say("$record.thermometers.0.id", 'T2'),
        ];
        yield 'a whole muscle' => [ProofFault::BatchDiffers, $say("$record.batch.product.integrity", 'non_intact')];
        yield 'not stuffed' => [ProofFault::BatchDiffers, $say("$record.batch.product.stuffed", true)];
        yield 'another pit' => [ProofFault::EventDiffers, $say("$record.batch.events.2.pit", 'south')];
        yield 'wild game' => [ProofFault::BatchDiffers, $say("$record.batch.product.wild", true)];
        yield 'its weight' => [ProofFault::BatchDiffers, $say("$record.batch.product.raw_weight_kg", 4.3)];
        yield 'another rule set' => [ProofFault::BatchDiffers, $say("$record.rules", 'other')];
        yield 'the elevation' => [ProofFault::SiteDiffers, $say("$record.site.elevation_m", 0)];
        yield 'a house limit' => [
            ProofFault::SiteDiffers,
            $say("$record.site.house_limits", ['prep_out_seconds' => 60]),
        ];
        yield 'a row' => [ProofFault::RowAltered, $say('6.row.is', '{"id":"'.MadeProof::BATCH.'"}')];
        yield 'a row under the id of another' => [ProofFault::RowAltered, $say('6.row.is', '{"id":"x"}')];
        yield 'a row that has no link' => [ProofFault::RowNotChained, $say('6.row.kind', 'lot')];
        yield 'a link' => [ProofFault::ChainBroken, $say('10.run.links.2.3', str_repeat('0', 64))];
        yield 'the time of a link' => [ProofFault::ChainBroken, $say('10.run.links.2.2', MadeProof::at('12:01'))];
        yield 'where a link stands' => [ProofFault::ChainBroken, $say('10.run.from', 40)];
        yield 'what came before' => [ProofFault::ChainBroken, $say('10.run.before', str_repeat('0', 64))];
        yield 'a seal' => [ProofFault::SealNotSigned, $say('11.seal.at', 1_790_000_001)];
        yield 'a seal of another place' => [ProofFault::ChainBroken, $say('11.seal.position', 46)];
        yield 'a key nobody vouches for' => [
            ProofFault::KeyUnvouched,
            $say('0.proof.keys.1', ['public' => 'x', 'before' => str_repeat('a', 64), 'vouched' => '', 'reason' => '']),
        ];
        yield 'what the application found itself' => [ProofFault::SaidBroken, $say('0.proof.verified.breaks', ['cut'])];
        yield 'no key named' => [ProofFault::KeyNotNamed, $say('0.proof.keys', [])];
    }

    public function testWhoeverHasNoKeyCannotAlterAnything(): void
    {
        $lines = (new MadeProof())->signed();
        $lines[1] = str_replace('"f":88', '"f":98', $lines[1]);
        $faults = array_column((new ProofCheck())->of($lines)->faults, 'fault');
        self::assertContains(ProofFault::AlteredFile, $faults);
        self::assertContains(ProofFault::NotSigned, $faults);
    }

    public function testOneMoreLineAMissingSignatureAndNoProofAtAllAreFound(): void
    {
        $lines = (new MadeProof())->signed();
        foreach (
            [
                [ProofFault::AlteredFile, [...$lines, "{}\n"]],
                [ProofFault::NotSigned, \array_slice($lines, 0, -1)],
                [ProofFault::NotAProof, ['no JSON']],
                [ProofFault::NotSigned, []],
                [ProofFault::NotSigned, ['{"signature": {"key": 1, "sha256": null}}']],
            ] as [$fault, $given]
        ) {
            self::assertContains($fault, array_column((new ProofCheck())->of($given)->faults, 'fault'));
        }
    }

    public function testAKeyOfTheirOwnIsNotTheOneOfTheKitchen(): void
    {
        $other = sodium_crypto_sign_seed_keypair(hash('sha256', 'a forger', true));
        $faults = array_column((new ProofCheck())->of((new MadeProof())->signed($other))->faults, 'fault');
        self::assertSame([ProofFault::KeyNotNamed], $faults);
    }

    public function testAKeyThatTheOneBeforeVouchesForIsGood(): void
    {
        $proof = new MadeProof();
        $new = sodium_crypto_sign_seed_keypair(hash('sha256', 'the next key', true));
        $public = sodium_bin2hex(sodium_crypto_sign_publickey($new));
        $vouched = MadeProof::sign($proof->pair, Statement::key(MadeProof::SITE, $proof->key, $public));
        /** @var array{proof: array{keys: list<array<string, string>>}} $head */
        $head = $proof->lines[0];
        $head['proof']['keys'][] = [
            'public' => $public, 'before' => $proof->key, 'vouched' => $vouched, 'reason' => 'a new machine',
        ];
        $proof->lines[0] = $head;
        self::assertSame([], (new ProofCheck())->of($proof->signed($new))->faults);
    }

    public function testEachVerdictIsJudgedAnewWhereThatCanBe(): void
    {
        $lines = (new MadeProof())->signed();
        $asked = [];
        $judge = static function (\stdClass $record, string $at) use (&$asked): array {
            $asked[] = $at;

            return ['' => 'running', 'cook' => 'running'];
        };
        self::assertSame([], (new ProofCheck($judge))->of($lines)->faults);
        self::assertSame([MadeProof::at('12:00')], $asked);
        foreach (
            [
                'the verdict' => ['' => 'broken', 'cook' => 'running'],
                'a rule' => ['' => 'running', 'cook' => 'met'],
                'a rule more' => ['' => 'running', 'cook' => 'running', 'cool' => 'met'],
                'a rule less' => ['' => 'running'],
                'a record that cannot be judged' => [],
            ] as $what => $verdicts
        ) {
            $faults = (new ProofCheck(static fn (): array => $verdicts))->of($lines)->faults;
            self::assertSame([['fault' => ProofFault::VerdictDiffers, 'of' => 'LS-1']], $faults, $what);
        }
    }

    /**
     * @param list<string> $texts
     * @param list<string> $of what does not hold
     */
    #[DataProvider('pages')]
    public function testEachPageReadsAsItWasSignedAndShowsItsBatches(array $texts, string $verdict, array $of): void
    {
        $proof = new MadeProof();
        foreach (['cover', 'LS-1·Lamb'] as $text) {
            $batches = str_contains($text, 'LS-1') ? [MadeProof::BATCH => $verdict] : [];
            $proof->lines[] = ['page' => ['sha256' => hash('sha256', $text), 'batches' => (object) $batches]];
        }
        $checked = (new ProofCheck())->of($proof->signed(), $texts);
        self::assertSame(
            array_map(static fn (string $one): array => ['fault' => ProofFault::PageDiffers, 'of' => $one], $of),
            $checked->faults,
        );
        self::assertSame(2, $checked->pages, 'so many were signed');
        self::assertTrue((new ProofCheck())->of($proof->signed())->holds(), 'a proof without its packet has no pages');
    }

    /** @return iterable<string, array{list<string>, string, list<string>}> */
    public static function pages(): iterable
    {
        yield 'as they were made' => [['cover', 'LS-1·Lamb'], 'running', []];
        yield 'another word on the cover' => [['Cover', 'LS-1·Lamb'], 'running', ['1']];
        yield 'another verdict' => [['cover', 'LS-1·Lamb'], 'met', ['LS-1']];
        yield 'a page less' => [['cover'], 'running', ['1', '2', 'LS-1']];
        yield 'a page more' => [['cover', 'LS-1·Lamb', 'more'], 'running', ['3']];
        yield 'none that can be read' => [[], 'running', ['0', '1', '2', 'LS-1']];
    }

    /** @param \Closure(string): string $alter */
    #[DataProvider('tails')]
    public function testNothingButTheSignatureCanStandBehindAPacket(bool $isGood, \Closure $alter): void
    {
        $signed = "%PDF-1.7\n1 0 obj\n<< >>\nendobj\nxref\n0 1\n0000000000 65535 f \n"
            ."trailer\n<< /Size 7 /Root 3 0 R /Info 2 0 R /ID [<aa> <aa>] /Prev 9 >>\nstartxref\n33\n%%EOF\n";
        $packet = $signed.PacketTail::of($signed, MadeProof::SITE, str_repeat('a', 64), str_repeat('b', 128));
        $found = PacketTail::in($alter($packet));
        self::assertSame($isGood, $found !== null);
        if ($isGood) {
            self::assertSame(\strlen($signed), $found['signed'] ?? 0);
        }
    }

    /** @return iterable<string, array{bool, \Closure(string): string}> */
    public static function tails(): iterable
    {
        yield 'as it was made' => [true, static fn (string $packet): string => $packet];
        yield 'as early versions made it' => [
            true,
            static fn (string $packet): string => str_replace('/Size 8 ', '/Size 7 ', $packet),
        ];
        yield 'another count' => [
            false,
            static fn (string $packet): string => str_replace('/Size 8 ', '/Size 9 ', $packet),
        ];
        yield 'another root' => [
            false,
            static fn (string $packet): string => substr_replace($packet, '4', (int) strrpos($packet, '3 0 R'), 1),
        ];
        yield 'an object more' => [
            false,
            static fn (string $packet): string => str_replace("endobj\nxref\n7", "endobj\n8 0 obj\nxref\n7", $packet),
        ];
        yield 'a further update' => [false, static fn (string $packet): string => $packet."trailer\n%%EOF\n"];
        yield 'no signature' => [
            false,
            static fn (string $packet): string => str_replace('/Signature', '/Signed', $packet),
        ];
        yield 'cut' => [false, static fn (string $packet): string => substr($packet, 0, -3)];
        yield 'nothing' => [false, static fn (): string => ''];
    }
}
