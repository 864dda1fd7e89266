<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Reporting;

use Doctrine\ORM\EntityManagerInterface;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestWith;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\Process\Process;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Chain\ChainVerifier;
use Verjuicer\App\Ledger\Procedure\Procedures;
use Verjuicer\App\Operations\Entry\Draft;
use Verjuicer\App\Operations\Entry\RecordEntry;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Reporting\Sop\SopText;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Event\Kinds\Pack;
use Verjuicer\Core\Food\ProcedureKind;
use Verjuicer\Tests\App\KitchenTestCase;

/** What a kitchen has in writing: begun from its own settings, never approved by itself, in force when it says. */
final class PapersTest extends KitchenTestCase
{
    #[DataProvider('kinds')]
    public function testEachBeginsWithATextOfItsOwnThatNobodyApproved(ProcedureKind $kind): void
    {
        $this->logIn('dell');
        $page = $this->client->request('GET', '/papers/'.$kind->value);
        $body = $page->filter('textarea')->text();
        self::assertStringContainsString('## ', $page->filter('textarea')->html());
        self::assertDoesNotMatchRegularExpression('/\{\w+\}|\bapproved by\b/i', $body, 'every figure is filled in');
        self::assertStringContainsString(
            'Your regulatory authority decides what you need and if it is enough',
            $page->filter('main')->text(),
        );
        self::assertStringNotContainsString('Approved by', $page->filter('main section')->first()->text());
    }

    /** @return iterable<string, array{ProcedureKind}> */
    public static function kinds(): iterable
    {
        foreach (ProcedureKind::cases() as $kind) {
            yield $kind->value => [$kind];
        }
    }

    public function testTheLimitsAreThoseOfTheRuleSetAndTheSite(): void
    {
        $this->logIn('dell');
        $text = fn (string $kind): string => $this->client->request('GET', "/papers/$kind")->filter('textarea')->text();
        self::assertStringContainsString(
            'From 135 °F to 41 °F within 6 h in all',
            $text('cooling'),
        );
        self::assertStringContainsString('within 4 h', $text('time_control'));
        self::assertStringContainsString('3-501.19(A)', $text('time_control'));
    }

    public function testAVersionIsKeptSignedPrintedAndItsScanStays(): void
    {
        $this->logIn('dell');
        $page = $this->client->request('GET', '/papers/preserving');
        $form = $page->selectButton('Save version')->form([
            'number' => 'HP-1', 'reason' => 'asked by the county', 'from' => '2026-11-24',
        ]);
        $this->client->submit($form);
        self::assertSelectorTextContains('#problem-from', 'approval of an authority');
        $form['approved_by'] = 'County health';
        $this->client->submit($form);
        self::assertSelectorTextContains(
            '#problem-approved_by',
            'Enter the authority, the date and the number of the approval, or none of them',
        );
        $form['approved_on'] = '2026-11-02';
        $form['approval_number'] = 'V-77';
        $this->client->submit($form);
        $main = $this->client->followRedirect()->filter('main')->text();
        $approved = 'Approved by County health, number V-77, Mon 2 Nov 2026';
        foreach (['HP-1, version 1', 'In force since', $approved] as $words) {
            self::assertStringContainsString($words, $main);
        }
        $this->client->submit($form);
        self::assertSame(1, $this->number("SELECT count(*) FROM procedure_version WHERE kind = 'preserving'"), 'once');
        $file = (string) tempnam(sys_get_temp_dir(), 'scan');
        file_put_contents($file, "%PDF-1.4\n%%EOF\n");
        $this->attach($file);
        self::assertStringContainsString('approval.pdf', $this->client->followRedirect()->filter('main')->text());
        file_put_contents($file, '<script>');
        $this->attach($file);
        self::assertSelectorTextContains('#problem-file', 'Choose a PDF, PNG or JPEG of at most 5 MB');
        unlink($file);
        $this->logIn('ike');
        $page = $this->client->request('GET', '/papers/preserving');
        $this->client->submit($page->selectButton('I have read this and was trained')->form());
        self::assertStringContainsString('Ike', $this->client->followRedirect()->filter('main')->text());
        $this->client->request('GET', '/papers/preserving/paper.pdf');
        $content = (string) $this->client->getResponse()->getContent();
        $pdf = new Process(['pdftotext', '-layout', '-', '-'], null, null, $content);
        $pdf->mustRun();
        foreach (
            [
                'HP-1, 1',
                'County health',
                'HACCP plan',
                'Your regulatory authority decides what you need and if it is enough',
            ] as $words
        ) {
            self::assertStringContainsString($words, (string) preg_replace('/\s+/', ' ', $pdf->getOutput()));
        }
        $walk = $this->service(ChainVerifier::class);
        self::assertNull($walk->firstBreak($this->logIn()->site), 'all of it is in the chain');
        $this->asOwner();
        $this->connection()->executeStatement('SET session_replication_role = replica');
        $this->connection()->executeStatement(
            "UPDATE procedure_version SET approved_by = '' WHERE kind = 'preserving'",
        );
        $this->connection()->executeStatement('SET session_replication_role = DEFAULT');
        self::assertSame('altered', $walk->firstBreak($this->logIn()->site)?->what);
    }

    #[TestWith([false, 0])]
    #[TestWith([true, 1])]
    public function testABatchThatNeedsAProcedureSaysSoWhereNoneIsInForce(bool $isWithdrawn, int $count): void
    {
        $site = $this->logIn('dell')->site;
        if ($isWithdrawn) {
            $page = $this->client->request('GET', '/papers/vacuum_pack');
            $form = $page->selectButton('Save version')->form(['reason' => 'stopped', 'from' => '2026-11-24']);
            $form['withdrawn'] = '1';
            $this->client->submit($form);
            self::assertNull($this->service(Procedures::class)->inForce($site, ProcedureKind::VacuumPack));
        }
        $this->service(RecordEntry::class)->keep(
            $this->batch(27),
            $this->logIn('ike'),
            true,
            new Draft(Uuid::v7(), new Pack('vacuum'), $this->service(Now::class)->instant()),
        );
        $findings = array_filter(
            $this->service(Assessments::class)->whole($this->batch(27))->findings,
            static fn (Finding $one): bool => $one->rule === 'house.procedure',
        );
        self::assertCount($count, $findings);
        $page = $this->client->request('GET', $this->path(27))->filter('main')->text();
        self::assertSame($isWithdrawn, str_contains($page, 'without a written procedure in force'));
        self::assertSame(!$isWithdrawn, str_contains($page, 'Made under P-4, version 1 (Vacuum packing)'));
    }

    public function testNobodySignsForWhatIsNotInForce(): void
    {
        $this->logIn('ike');
        $this->client->request('GET', '/papers/preserving');
        self::assertSelectorNotExists('form[action$="/trained"]');
        $this->client->request('POST', '/papers/preserving/trained');
        self::assertResponseStatusCodeSame(422);
        self::assertSame(0, $this->number('SELECT count(*) FROM procedure_training'));
    }

    public function testATextIsMarkdownAndNothingElse(): void
    {
        $html = (new SopText())->html(
            "## One\r\nwords *and* **more**\n\n- a\n- b\n\n<script>x</script>\n\n[y](javascript:z)",
        );
        self::assertStringContainsString('<h3>One</h3>', $html);
        self::assertStringContainsString('<em>and</em> <strong>more</strong>', $html);
        self::assertStringContainsString('<li>a</li>', $html);
        self::assertStringNotContainsString('<script', $html);
        self::assertStringNotContainsString('javascript:', $html);
        self::assertStringNotContainsString('*', $html);
    }

    public function testACoolingThatIsTooLateIsNeverReheatedByTheProcedure(): void
    {
        $this->logIn('dell');
        $text = $this->client->request('GET', '/papers/cooling')->filter('textarea')->text();
        self::assertStringContainsString('Above 70 °F when the 2 h are over: discard.', $text);
        self::assertStringContainsString('are not over: change the method, or reheat', $text);
    }

    public function testEachProcedureNamesWhatTheCodeAsksFor(): void
    {
        $this->logIn('dell');
        $text = fn (string $kind): string => $this->client->request('GET', "/papers/$kind")->filter('textarea')->text();
        foreach ([
            'time_control' => ['(1)(b)', '(2)', '(C)(3)', 'time it was taken out', 'must be discarded', '(D)', 'Foods'],
            'vacuum_pack' => [
                '3-502.12(F)', '3-502.12(B)', 'second barrier', 'Work area', 'Training', 'Label', 'freezer counts',
            ],
            'recall' => ['Team', 'Contacts', 'Effectiveness check'],
            'thermometer_checks' => ['± 2 °F', 'Air thermometer', 'Leave-in probe', '4-203.11'],
            'consumer_advisory' => ['3-603.11', 'Disclosure', 'Reminder'],
        ] as $kind => $wanted) {
            foreach ($wanted as $words) {
                self::assertStringContainsString($words, $text($kind), "$kind: $words");
            }
        }
    }

    public function testAHaccpPlanIsDraftedForEachProductThatNeedsOne(): void
    {
        $this->logIn('dell');
        $text = fn (): string => $this->client->request('GET', '/papers/preserving')->filter('textarea')->text();
        self::assertStringContainsString('No product of Quarry Lane Smokehouse', $text());
        $products = $this->service(Products::class);
        $mutton = $products->named($this->logIn('dell')->site, 'Mutton ham') ?? self::fail('there is no mutton ham');
        $mutton->treatments = ['cured'];
        $this->service(EntityManagerInterface::class)->flush();
        $parts = [
            'Mutton ham (cured)', 'Flow', 'CCP 1', 'Critical limit', 'Monitoring', 'Corrective action', 'Verification',
            'nitrite', 'or reaches 158 °F',
        ];
        foreach ($parts as $words) {
            self::assertStringContainsString($words, $text(), $words);
        }
        $cheek = $this->service(Products::class)->named($this->logIn('dell')->site, 'Beef cheek');
        self::assertNotNull($cheek);
        $cheek->treatments = ['cured'];
        $this->service(EntityManagerInterface::class)->flush();
        self::assertStringContainsString('| 4 | 145 °F for 15 s |', $text(), 'a limit is nothing without its time');
    }

    private function attach(string $file): void
    {
        $page = $this->client->request('GET', '/papers/preserving');
        $form = $page->selectButton('Attach to the latest version')->form();
        $this->client->request(
            'POST',
            $form->getUri(),
            $form->getPhpValues(),
            ['file' => new UploadedFile($file, 'approval.pdf', null, null, true)],
        );
    }
}
