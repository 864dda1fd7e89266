<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Documents;

/** The pictures of the README: where each is taken, and the templates it shows. `docs/screenshots/take` takes them. */
final readonly class Pictures
{
    private const FOLDER = __DIR__.'/../../docs/screenshots/';
    private const TEMPLATES = __DIR__.'/../../templates/';

    /** Path and what is clicked there, width, height, and folders or files of templates. */
    public const ALL = [
        'board' => ['/', 1280, 800, ['operations/board', 'operations/entry/_line.html.twig']],
        'batch-cooling' => ['/ > //a[.//span[@class="tag"][.="12"]]', 1280, 800, ['operations/batch']],
        'batch-not-shown' => ['/ > //li[@data-due]//a[contains(., "24")]', 1280, 800, ['operations/batch']],
        'batch-broken' => ['/ > //li[@data-due]//a[contains(., "18")]', 1280, 800, ['operations/batch']],
        'receiving' => [
            '/receiving',
            1280,
            800,
            ['operations/receiving/list.html.twig', 'operations/receiving/_use_by.html.twig'],
        ],
        'pit' => ['/pits > //main//a[contains(@href, "/pits/")]', 1280, 800, ['operations/pit/pit.html.twig']],
        'thermometer' => [
            '/thermometers > //main//a[contains(., "T2")]', 1280, 800, ['operations/thermometer/thermometer.html.twig'],
        ],
        'plan' => [
            '/plans > //main//a[contains(., "Harvest")] > //main//a[contains(@href, "/schedule")]', 1280, 800,
            ['operations/plan/schedule.html.twig', 'operations/plan/_aside.html.twig'],
        ],
        'what-if' => [
            '/cooling?method=ice_bath&depth=3&depth_unit=in',
            1280,
            800,
            ['operations/what_if/cooling.html.twig'],
        ],
        'kitchen' => ['/kitchen', 1280, 800, ['entry_point/kitchen.html.twig']],
        'sensor' => [
            '/sensors > //main//a[contains(@href, "/sensors/")]',
            1280,
            800,
            ['operations/probe/sensor.html.twig'],
        ],
        'day-sheet' => [
            '/days > //main//a[contains(@href, "/days/")]',
            1280,
            800,
            ['reporting/daily_log/day.html.twig'],
        ],
        'trends' => ['/trends', 1280, 800, ['reporting/trends/trends.html.twig']],
        'sites' => ['/sites', 1280, 800, ['entry_point/sites/list.html.twig', 'entry_point/sites/_line.html.twig']],
        'wall' => ['/wall', 1920, 1080, ['operations/board/wall.html.twig', 'operations/board/_wall.html.twig']],
        'phone-board' => ['/', 390, 844, ['operations/board']],
        'phone-batch' => ['/ > //a[.//span[@class="tag"][.="7"]]', 390, 844, ['operations/batch']],
        'phone-keypad' => ['/ > //button[contains(., "Keypad")]', 390, 844, ['operations/entry/_pad.html.twig']],
        'phone-alarm' => [
            '/alarms > //main//a[contains(@href, "/alarms/")]', 390, 844, ['operations/alarm/alarm.html.twig'],
        ],
    ];

    /** Writes down what a picture was taken from. */
    public static function note(string $name): void
    {
        $noted = self::noted();
        $noted[$name] = self::digest($name);
        ksort($noted);
        file_put_contents(self::file(), json_encode($noted, \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT)."\n");
    }

    /** @return list<string> pictures that are older than the templates they show */
    public static function outdated(): array
    {
        $noted = self::noted();

        return array_values(array_filter(
            array_keys(self::ALL),
            static fn (string $name): bool => ($noted[$name] ?? '') !== self::digest($name),
        ));
    }

    /** @return array<string, string> */
    private static function noted(): array
    {
        $read = is_file(self::file()) ? json_decode((string) file_get_contents(self::file()), true) : [];
        $noted = [];
        foreach (\is_array($read) ? $read : [] as $name => $digest) {
            $noted[(string) $name] = \is_string($digest) ? $digest : '';
        }

        return $noted;
    }

    private static function file(): string
    {
        return self::FOLDER.'taken.json';
    }

    private static function digest(string $name): string
    {
        $digests = '';
        foreach (self::ALL[$name][3] as $shown) {
            $path = self::TEMPLATES.$shown;
            foreach (is_dir($path) ? (array) glob($path.'/*') : [$path] as $file) {
                $digests .= basename((string) $file).hash_file('sha256', (string) $file);
            }
        }

        return substr(hash('sha256', $digests), 0, 16);
    }
}
