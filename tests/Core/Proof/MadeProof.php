<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Proof;

use Verjuicer\Core\Proof\Statement;

/** A proof as the application makes one: of one batch with three events, a pit's and a thermometer's row. */
final class MadeProof
{
    public const SITE = '01900000-0000-7000-8000-000000000001';
    public const BATCH = '01900000-0000-7000-8000-0000000000b1';
    private const AT = '2026-11-24T%s:00Z';

    /** @var non-empty-string */
    public readonly string $pair;
    public string $key;

    /** @var array<string, array<string, mixed>> rows by "kind id", as they are linked */
    public array $rows = [];

    /** @var list<array<string, mixed>> lines before the signature */
    public array $lines = [];

    public function __construct()
    {
        $this->pair = sodium_crypto_sign_seed_keypair(hash('sha256', 'a kitchen', true));
        $this->key = sodium_bin2hex(sodium_crypto_sign_publickey($this->pair));
        $this->rows = self::written();
        $this->lines = [...$this->head(), ...$this->chain()];
    }

    /**
     * @param non-empty-string|null $pair
     *
     * @return list<string> each with its line end, the signature last
     */
    public function signed(?string $pair = null): array
    {
        $lines = array_map(self::line(...), $this->lines);
        $digest = hash('sha256', implode('', $lines));
        $pair ??= $this->pair;

        return [...$lines, self::line(['signature' => [
            'sha256' => $digest,
            'key' => sodium_bin2hex(sodium_crypto_sign_publickey($pair)),
            'signature' => self::sign($pair, Statement::file('proof', self::SITE, $digest)),
        ]])];
    }

    /** @param non-empty-string $pair */
    public static function sign(string $pair, string $words): string
    {
        return sodium_bin2hex(sodium_crypto_sign_detached($words, sodium_crypto_sign_secretkey($pair)));
    }

    public static function id(int $number): string
    {
        return \sprintf('01900000-0000-7000-8000-%012d', $number);
    }

    public static function at(string $time): string
    {
        return \sprintf(self::AT, $time);
    }

    /** @return array<string, array<string, mixed>> */
    private static function written(): array
    {
        $event = static fn (int $number, string $time, string $type, array $members): array => [
            'id' => self::id($number), 'batch_id' => self::BATCH, 'at' => \sprintf('2026-11-24T%s:00+00:00', $time),
            'recorded_at' => \sprintf('2026-11-24T%s:00+00:00', $time), 'initials' => 'MR', 'type' => $type,
            'members' => $members, 'replaces' => null, 'reason' => null,
        ];
        $kept = static fn (int $number, string $table, int $of, array $content): array => [
            'id' => self::id($number), 'of_table' => $table, 'row_id' => self::id($of), 'content' => $content,
        ];

        return [
            'row_kept '.self::id(1) => $kept(1, 'site', 90, [
                'name' => 'Quarry Lane Smokehouse', 'timezone' => 'America/Denver', 'unit' => 'f',
                'elevation_m' => 1610, 'house_limits' => [],
            ]),
            'row_kept '.self::id(4) => $kept(4, 'pit', 92, ['name' => 'north']),
            'row_kept '.self::id(2) => $kept(2, 'thermometer', 91, ['label' => 'T1']),
            'thermometer_check '.self::id(3) => [
                'id' => self::id(3), 'thermometer_id' => self::id(91), 'at' => '2026-11-24T08:00:00+00:00',
                'method' => 'ice', 'expected' => ['f' => 32], 'read' => ['f' => 32.5],
            ],
            'batch '.self::BATCH => [
                'id' => self::BATCH, 'parent_id' => null, 'product_name' => 'Lamb shoulder', 'animal' => 'lamb',
                'form' => 'whole', 'integrity' => 'intact', 'raw_grams' => 4200, 'pieces' => 1, 'is_stuffed' => false,
                'is_wild' => false, 'has_advisory' => false, 'rule_set' => 'us-fda-2022',
            ],
            'event '.self::id(11) => $event(11, '09:00', 'cook', ['pit' => 'north']),
            'event '.self::id(12) => $event(12, '10:00', 'reading', [
                'piece' => 1, 'spot' => 'center', 'temp' => ['f' => 88], 'thermometer' => 'T1',
            ]),
            'site_event '.self::id(13) => [
                'id' => self::id(13), 'at' => '2026-11-24T10:30:00+00:00', 'initials' => 'MR', 'type' => 'reading',
                'subject' => 'pit', 'subject_id' => self::id(92),
                'recorded_at' => '2026-11-24T10:30:00+00:00', 'members' => ['temp' => ['f' => 250]],
            ],
        ];
    }

    /** @return list<array<string, mixed>> */
    private function head(): array
    {
        $said = ['by' => 'MR'];

        return [
            ['proof' => [
                'format' => 'verjuicer-proof/1',
                'site' => ['id' => self::SITE, 'name' => 'Quarry Lane Smokehouse'],
                'made_at' => self::at('12:00'),
                'verified' => ['breaks' => []],
                'keys' => [['public' => $this->key, 'before' => '', 'vouched' => '', 'reason' => '']],
            ]],
            ['batch' => [
                'id' => self::BATCH,
                'record' => [
                    'rules' => 'us-fda-2022',
                    'site' => [
                        'name' => 'Quarry Lane Smokehouse', 'timezone' => 'America/Denver', 'unit' => 'f',
                        'elevation_m' => 1610,
                    ],
                    'thermometers' => [['id' => 'T1', 'checks' => [
                        [
                            'at' => self::at('08:00'), 'method' => 'ice',
                            'expected' => ['f' => 32.0], 'read' => ['f' => 32.5],
                        ],
                    ]]],
                    'batch' => [
                        'code' => 'LS-1',
                        'product' => [
                            'name' => 'Lamb shoulder', 'animal' => 'lamb', 'form' => 'whole', 'integrity' => 'intact',
                            'raw_weight_kg' => 4.2, 'pieces' => 1,
                        ],
                        'events' => [
                            ['id' => self::id(11), 'at' => self::at('09:00'), 'recorded_at' => self::at('09:00'),
                                'type' => 'cook', 'pit' => 'north'] + $said,
                            ['id' => self::id(12), 'at' => self::at('10:00'), 'recorded_at' => self::at('10:00'),
                                'type' => 'reading', 'temp' => ['f' => 88.0], 'spot' => 'center', 'piece' => 1,
                                'thermometer' => 'T1'] + $said,
                            ['id' => self::id(13), 'at' => self::at('10:30'), 'recorded_at' => self::at('10:30'),
                                'type' => 'pit_reading', 'temp' => ['f' => 250], 'pit' => 'north'] + $said,
                        ],
                    ],
                ],
                'assessment' => [
                    'verdict' => 'running', 'as_of' => self::at('12:00'), 'rules_judged' => ['cook' => 'running'],
                ],
            ]],
        ];
    }

    /** @return list<array<string, mixed>> rows, the run over them, and the seal at its end */
    private function chain(): array
    {
        $lines = $links = [];
        $hash = $before = hash('sha256', 'what came before', true);
        $position = 40;
        foreach ($this->rows as $of => $row) {
            [$kind, $id] = explode(' ', $of);
            $canonical = json_encode($row, \JSON_THROW_ON_ERROR);
            $lines[] = ['row' => ['kind' => $kind, 'id' => $id, 'form' => 2, 'is' => $canonical]];
            $links[] = [$kind, $id, self::at('12:00'), hash('sha256', $canonical)];
            $words = Statement::link(
                self::SITE,
                ++$position,
                $kind,
                $id,
                self::at('12:00'),
                hash('sha256', $canonical),
            );
            $hash = hash('sha256', $hash.$words, true);
        }
        $seal = Statement::seal(self::SITE, $position, bin2hex($hash), 1_790_000_000);

        return [
            ...$lines,
            ['run' => ['from' => 41, 'before' => bin2hex($before), 'links' => $links]],
            ['seal' => [
                'position' => $position, 'digest' => bin2hex($hash), 'at' => 1_790_000_000,
                'signature' => self::sign($this->pair, $seal),
            ]],
        ];
    }

    /** @param array<string, mixed> $value */
    private static function line(array $value): string
    {
        return json_encode($value, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_SLASHES)."\n";
    }
}
