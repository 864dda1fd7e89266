<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Symfony\Component\Process\Process;
use Verjuicer\App\Platform\Pdf\Attachments;
use Verjuicer\Core\Proof\PacketTail;
use Verjuicer\Core\Proof\Statement;
use Verjuicer\Tests\Core\Proof\MadeProof;
use Verjuicer\Tests\Core\Proof\ProofCheckTest;

/** The page that checks packets, opened from a file as on an inspector's laptop: it finds what the core finds. */
final class CheckerTest extends BrowserTestCase
{
    /** @var list<string> */
    private array $files = [];

    protected function tearDown(): void
    {
        parent::tearDown();
        array_map(unlink(...), $this->files);
    }

    public function testItFindsEveryAlterationAndPassesWhatWasMade(): void
    {
        $this->openChecker();
        $this->give(implode('', (new MadeProof())->signed()), 'ndjson');
        $unknown = 'Unaltered since the holder of this key signed it. This file cannot show whose key it is';
        $this->assertSays('unknown', $unknown);
        self::assertStringContainsString('Only bin/verify-packet judges the records again', $this->told());
        self::assertStringContainsString('1 batches, 3 entries compared', $this->told());
        foreach (ProofCheckTest::alterations() as $what => [$fault, $alter]) {
            $proof = new MadeProof();
            $alter($proof);
            $this->give(implode('', $proof->signed()), 'ndjson');
            $this->assertSays('bad', 'Something does not match');
            self::assertStringContainsString(self::words($fault->value), $this->told(), $what);
        }
    }

    public function testAPacketIsCheckedWithItsKeyAndShowsWhenAByteOfItIsAnother(): void
    {
        $proof = new MadeProof();
        $packet = self::packet($proof);
        $this->openChecker();
        $this->browser->findElement(WebDriverBy::id('key'))->sendKeys($proof->key);
        $this->give($packet, 'pdf');
        $this->assertSays('good', 'Everything matches');
        self::assertStringContainsString('This is the key you entered', $this->told());
        self::assertStringContainsString('1 pages compared with the records', $this->told());
        $this->give(self::packet(new MadeProof(), '<h1>LS-1 · Lamb: met</h1>'), 'pdf');
        $this->assertSays('bad', 'Something does not match');
        self::assertStringContainsString('A page differs from its records (1)', $this->told());
        $this->give(substr_replace($packet, 'X', 900, 1), 'pdf');
        $this->assertSays('bad', 'Something does not match');
        $this->give($packet."%\n", 'pdf');
        $this->assertSays('bad', 'Something does not match');
        $this->give('%PDF-1.7 of somebody else', 'pdf');
        $this->assertSays('bad', 'Something does not match');
        self::assertStringContainsString('This is not a packet or proof of this application', $this->told());
        $key = $this->browser->findElement(WebDriverBy::id('key'));
        $key->clear();
        $key->sendKeys(strrev($proof->key));
        $this->give($packet, 'pdf');
        $this->assertSays('bad', 'Something does not match');
        self::assertStringContainsString('The key is not the one you entered', $this->told());
    }

    /** The page as it is handed out, from a file. */
    private function openChecker(): void
    {
        $page = file_get_contents(self::address().'/check-packet.html');
        self::assertIsString($page);
        $file = $this->kept($page, 'html');
        $this->browser->get('file://'.$file);
    }

    private function give(string $content, string $ending): void
    {
        $this->browser->executeScript("document.getElementById('result').replaceChildren();");
        $this->browser->findElement(WebDriverBy::id('file'))->sendKeys($this->kept($content, $ending));
        $this->until(fn (): bool => $this->browser->findElements(WebDriverBy::cssSelector('#result h2')) !== []);
    }

    private function assertSays(string $class, string $words): void
    {
        self::assertSame($words, $this->browser->findElement(WebDriverBy::cssSelector("#result h2.$class"))->getText());
    }

    private function told(): string
    {
        return $this->browser->findElement(WebDriverBy::id('result'))->getText();
    }

    private function kept(string $content, string $ending): string
    {
        $this->files[] = $file = sys_get_temp_dir().'/verjuicer-'.bin2hex(random_bytes(6)).'.'.$ending;
        file_put_contents($file, $content);

        return $file;
    }

    private static function words(string $fault): string
    {
        $words = (string) file_get_contents(self::ROOT.'/translations/messages+intl-icu.en.yaml');
        self::assertSame(1, preg_match("/^        $fault: '?(.+?)'?$/m", $words, $part), $fault);

        return $part[1] ?? '';
    }

    private static function packet(MadeProof $proof, string $shown = '<h1>LS-1 · Lamb °F</h1>'): string
    {
        $text = 'LS-1·Lamb°F';
        $proof->lines[] = ['page' => ['sha256' => hash('sha256', $text), 'batches' => [MadeProof::BATCH => 'running']]];
        $pdf = new Process(['weasyprint', '--pdf-variant', 'pdf/a-3b', '-', '-'], null, null, $shown);
        $file = [
            'name' => 'proof.ndjson',
            'type' => 'application/x-ndjson',
            'description' => 'proof',
            'content' => implode('', $proof->signed()),
        ];
        $signed = Attachments::add($pdf->mustRun()->getOutput(), [$file], new \DateTimeImmutable('2026-11-24'));
        $words = Statement::file('packet', MadeProof::SITE, hash('sha256', $signed));

        return $signed.PacketTail::of($signed, MadeProof::SITE, $proof->key, MadeProof::sign($proof->pair, $words));
    }
}
