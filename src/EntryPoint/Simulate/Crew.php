<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Simulate;

use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\Uid\Uuid;

/** The invented crew of a played kitchen: it reads, moves, settles and begins, through the pages people use. */
final class Crew
{
    private const BEGUN = [
        // Product, pieces, kg of one, pit.
        ['Lamb shoulder', 2, 2.8, 'Drum'],
        ['Beef brisket', 1, 5.2, 'Offset'],
        ['Duck', 3, 2.1, 'Oven'],
        ['Chicken, whole', 4, 1.7, 'Drum'],
        ['Turkey breast', 2, 2.4, 'Oven'],
        ['Goat leg', 2, 2.2, 'Offset'],
    ];

    /** A hand thermometer that passed its last check. */
    private const THERMOMETER = 'T1';

    /** @var array<string, int> when each batch was read last, by id */
    private array $readAt = [];

    public function __construct(
        private readonly SiteClient $site,
        private readonly string $token,
        private readonly \Random\Randomizer $random,
    ) {
    }

    public function logIn(string $login, string $password): void
    {
        $this->site->logIn($login, $password);
    }

    /** Writes one log line, as a cook would. */
    public function say(string $line): bool
    {
        $form = $this->site->page('/log')->filter('form[action="/log"] input[name="_token"]');

        return $form->count() > 0
            && $this->site->post('/log', [
                '_token' => $form->attr('value') ?? '',
                'id' => Uuid::v7()->toRfc4122(),
                'back' => '/',
                'line' => $line,
                'sure' => '1',
            ]) === 303;
    }

    /** Puts the probe L1-1 into the coldest batch on the heat, once the one it was in is off it. */
    public function moveProbe(World $world): void
    {
        if ($world->probed()?->stage === 'cook') {
            return;
        }
        $onHeat = array_filter($world->meats, static fn (Meat $one): bool => $one->stage === 'cook');
        uasort($onHeat, static fn (Meat $one, Meat $other): int => $one->core() <=> $other->core());
        $next = array_key_first($onHeat);
        $sensor = $this->site->page('/sensors')->filter('main a[href^="/sensors/"]')->reduce(
            static fn (Crawler $one): bool => str_contains($one->text(), 'L1'),
        );
        if ($next === $world->probed || $sensor->count() === 0) {
            return;
        }
        $path = $sensor->attr('href') ?? '';
        $token = $this->site->page($path)->filter('form input[name="_token"]')->attr('value');
        $status = $this->site->post("$path/channels/1", [
            '_token' => $token ?? '',
            'id' => Uuid::v7()->toRfc4122(),
            'where' => $next === null ? 'none' : "batch:$next",
            'piece' => '1',
            'spot' => 'core',
            'when' => 'now',
        ]);
        $world->probed = $status === 303 ? $next : $world->probed;
    }

    /** Takes due readings, moves finished food on, and records corrective actions. */
    public function goRound(World $world, int $now, bool $looks): void
    {
        $dues = $looks ? $this->dues($now) : [];
        foreach ($world->meats as $id => $meat) {
            $tag = $world->tags[$id];
            $isDue = isset($dues[$id]);
            $every = match ($meat->stage) {
                'cook', 'reheat' => 35,
                'rest', 'cool' => 18,
                'hot_hold' => 40,
                default => 240,
            };
            if ($looks && ($isDue || $now - ($this->readAt[$id] ?? 0) > 60 * $every)) {
                // A due check is due for every piece.
                $this->check($tag, $meat, $isDue);
                $this->readAt[$id] = $now;
            }
            if ($looks) {
                $this->moveOn($id, $tag, $meat, $now);
            }
        }
    }

    /** The corrective action for a deviation: discarded. */
    public function settle(string $batchId, int $tag): void
    {
        $page = $this->site->page('/batches/'.$batchId);
        foreach ($page->filter('#actions form') as $node) {
            $form = new Crawler($node);
            $fields = [];
            foreach ($form->filter('input[type="hidden"]') as $input) {
                if ($input instanceof \DOMElement) {
                    $fields[$input->getAttribute('name')] = $input->getAttribute('value');
                }
            }
            if (($fields['type'] ?? '') === 'action') {
                $this->site->post("/batches/$batchId", [
                    'other' => 'thrown away',
                    'when' => 'now',
                ] + $fields);
            }
        }
        $this->say("$tag discard not shown to be safe");
    }

    public function begin(): void
    {
        $form = $this->site->page('/batches/new');
        $token = $form->filter('form input[name="_token"]')->last()->attr('value') ?? '';
        $tag = $form->filter('input[name="tag"]')->attr('value') ?? '';
        [$product, $pieces, $kg, $pit] = self::BEGUN[$this->random->getInt(0, \count(self::BEGUN) - 1)];
        foreach ($form->filter('select[name="product"] option') as $option) {
            if ($option instanceof \DOMElement && trim($option->textContent) === $product) {
                $this->site->post('/batches/new', [
                    '_token' => $token,
                    'id' => Uuid::v7()->toRfc4122(),
                    'product' => $option->getAttribute('value'),
                    'tag' => $tag,
                    'pieces' => (string) $pieces,
                    'weight' => (string) $kg,
                    'weight_unit' => 'kg',
                    'start' => 'cook',
                    'pit' => $pit,
                    'when' => 'now',
                    'sure' => '1',
                ]);
            }
        }
    }

    private function moveOn(string $id, int $tag, Meat $meat, int $now): void
    {
        $core = $meat->core();
        $minutes = intdiv($now - $meat->stageSince, 60);
        $line = match ($meat->stage) {
            'cook' => $core >= 196.0 ? "$tag rest towels" : null,
            'rest' => match (true) {
                $minutes >= 40 && $core >= 150.0 => "$tag hold cabinet",
                $core < 140.0 || $minutes >= 90 => "$tag cool walk-in",
                default => null,
            },
            'hot_hold' => $minutes >= 150 ? "$tag serve" : null,
            'cool' => $core <= 40.0 ? "$tag cold walk-in" : null,
            'cold_hold', 'received', 'thaw', 'freeze', 'time_control', 'serve' => $minutes >= 360 ? "$tag serve" : null,
            'prep' => $minutes >= 30 ? "$tag cook Drum" : null,
            'reheat' => $core >= 168.0 ? "$tag hold cabinet" : null,
            default => null,
        };
        if ($line === null) {
            return;
        }
        // A stage ends with the reading that allows it.
        $this->check($tag, $meat, true);
        if ($this->say($line)) {
            $this->readAt[$id] = 0;
        }
    }

    private function check(int $tag, Meat $meat, bool $isEachPiece): void
    {
        foreach ($meat->tracks as $piece => $location) {
            $core = $meat->core() + $this->random->getInt(-3, 3) / 10;
            $this->say(\sprintf('%d.%d %s %.1f %s', $tag, $piece, $location, $core, self::THERMOMETER));
            if (!$isEachPiece) {
                return;
            }
        }
    }

    /** @return array<string, true> batches that something is due of within minutes, by id */
    private function dues(int $now): array
    {
        $answer = $this->site->read('/api/v1/dues', $this->token);
        $due = [];
        foreach (\is_array($answer['dues'] ?? null) ? $answer['dues'] : [] as $one) {
            if (\is_array($one) && \is_string($one['batch'] ?? null) && \is_int($one['tag'] ?? null)) {
                $deadline = \is_string($one['deadline'] ?? null) ? strtotime($one['deadline']) : false;
                if ($deadline === false) {
                    $this->settle($one['batch'], $one['tag']);
                } elseif ($deadline - $now < 300) {
                    $due[$one['batch']] = true;
                }
            }
        }

        return $due;
    }
}
