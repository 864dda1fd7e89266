<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\Process\Process;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Projections;
use Verjuicer\App\Reporting\Packet\Packets;
use Verjuicer\App\Reporting\Packet\PacketScope;
use Verjuicer\Core\Ruleset\RuleSetLibrary;
use Verjuicer\Tests\App\KitchenTestCase;
use Verjuicer\Tests\Core\Ruleset\ArtificialRules;

/** Under a code of no country every page, label and packet speaks of its numbers and of none of the real ones. */
final class ArtificialCodeTest extends KitchenTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->client->disableReboot();
        self::getContainer()->set(RuleSetLibrary::class, ArtificialRules::library());
        $this->service(Projections::class)->rebuild();
    }

    public function testWhatIsDueIsSaidInItsNumbers(): void
    {
        $this->logIn();
        $dues = $this->client
            ->request('GET', '/')
            ->filter('[data-due]')
            ->each(static fn (Crawler $one): string => $one->text());
        $this->assertSpeaksOfNoRealLimit(implode("\n", $dues));
        self::assertStringContainsString('must reach '.$this->degrees('cooling', 'middle'), implode("\n", $dues));
        $flags = $this->client
            ->getCrawler()
            ->filter('.post text')
            ->each(static fn (Crawler $one): string => $one->text());
        self::assertNotSame(
            [],
            array_filter(
                $flags,
                fn (string $flag): bool => str_starts_with(
                    $flag,
                    str_replace(' °F', '°', $this->degrees('cooling', 'middle')),
                ),
            ),
            implode(' ', $flags),
        );
    }

    public function testAPageSaysItsNumbers(): void
    {
        $this->logIn();
        $said = '';
        foreach ([12, 3, 27, 21, 9, 28, 15] as $tag) {
            $page = $this->client->request('GET', $this->path($tag));
            self::assertResponseIsSuccessful();
            $said
                .= implode(
                    "\n",
                    $page
                        ->filter('#how-long, .bg-sand, #need, #pieces + p')
                        ->each(static fn (Crawler $one): string => $one->text()),
                )."\n";
            $said
                .= implode(
                    "\n",
                    $this->client
                        ->request('GET', $this->path($tag).'/steps')
                        ->filter('option, .key-choice')
                        ->each(static fn (Crawler $one): string => $one->text()),
                )."\n";
        }
        $this->assertSpeaksOfNoRealLimit($said);
        $limits = [['cooling', 'middle'], ['limits', 'cold'], ['reheating', 'own'], ['time_control', 'cold_ceiling']];
        foreach ($limits as $limit) {
            self::assertStringContainsString($this->degrees(...$limit), $said);
        }
    }

    public function testALabelCountsItsDays(): void
    {
        $this->logIn();
        $days = ArtificialRules::data()['date_mark']['days'] ?? 0;
        $label = $this->client
            ->request('GET', $this->path(15).'/label')
            ->filter('main svg')
            ->text();
        $useBy = (new \DateTimeImmutable('2026-11-23'))->modify('+'.($days - 1).' days')->format('D j M Y');
        self::assertStringContainsString('USE BY '.$useBy, $label);
    }

    public function testAPacketPrintsItsNumbersAndSections(): void
    {
        $id = Uuid::v7();
        $this->service(Packets::class)->ask(
            $id,
            $this->logIn('dell'),
            $this->service(Now::class)->instant(),
            new PacketScope('2020-01-01', '2030-01-01', product: 'Pork loin'),
            'A4',
        );
        $packet = $this->service(Packets::class)->find($id->toRfc4122());
        self::assertNotNull($packet);
        $process = new Process(
            ['pdftotext', '-layout', '-', '-'],
            null,
            null,
            $this->service(Packets::class)->pdf($packet),
        );
        $text = (string) preg_replace('/\s+/', ' ', $process->mustRun()->getOutput());
        self::assertSame(
            1,
            preg_match('/.*U\.S\. Food and Drug(.*?)hot-holding check at least/s', $text, $part),
            'the rules it was judged by',
        );
        $rules = $part[1] ?? '';
        $this->assertSpeaksOfNoRealLimit($rules);
        $data = ArtificialRules::data();
        foreach (['received_cold', 'received_hot', 'cold', 'hot', 'hot_roast'] as $name) {
            [$word, $number] = explode(' ', $data['limits'][$name]['citation']);
            self::assertMatchesRegularExpression(
                '/'.$this->degrees('limits', $name).' '.$word.'\D{0,20}'.$number.'\b/u',
                $rules,
                $name,
            );
        }
    }

    private function degrees(string $part, string $name): string
    {
        $limit = ArtificialRules::data()[$part][$name];

        return rtrim(rtrim(number_format($limit['f'], 1, '.', ''), '0'), '.').' °F';
    }

    private function assertSpeaksOfNoRealLimit(string $text): void
    {
        $real = [];
        $data = ArtificialRules::real();
        unset($data['house'], $data['thermometers']);
        array_walk_recursive($data, static function (mixed $value, int|string $name) use (&$real): void {
            if ($name === 'f' && is_numeric($value)) {
                $real[] = $value.' °F';
            }
        });
        foreach (array_unique($real) as $limit) {
            self::assertDoesNotMatchRegularExpression('/(?<![\d.])'.preg_quote($limit, '/').'/u', $text);
        }
        self::assertDoesNotMatchRegularExpression('/\b[3-8]-\d{3}\.\d/', $text, 'nor of a section');
    }
}
