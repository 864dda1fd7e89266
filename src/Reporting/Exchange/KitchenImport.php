<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Holding\HoldUnit;
use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Recipe\Recipe;
use Verjuicer\App\Catalogue\Supplier\Supplier;
use Verjuicer\App\Catalogue\Template\CookTemplate;
use Verjuicer\App\Catalogue\Thermometer\Thermometer;
use Verjuicer\App\Catalogue\Thermometer\ThermometerKind;
use Verjuicer\App\Ledger\Check\AccuracyChecks;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Ledger\Lot\Lot;
use Verjuicer\App\Ledger\Procedure\Procedures;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Reporting\Sop\ProcedureLog;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Settings\Settings;
use Verjuicer\App\Site\Settings\SettingsForm;
use Verjuicer\App\Site\Settings\SiteValues;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Food\ProcedureKind;
use Verjuicer\Core\Json\DocumentProblems;
use Verjuicer\Core\Json\Fields;

/**
 * Imports a kitchen's data other than records (`verjuicer-site/1`): items with a known name are left unchanged.
 * Settings are imported if nothing was recorded yet. People and times of the file are kept as text, next to the person
 * and time of the import.
 */
final readonly class KitchenImport
{
    private const NAME = 100;

    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private Ledger $ledger,
        private SettingsForm $form,
        private Settings $settings,
        private AccuracyChecks $checks,
        private Procedures $procedures,
        private ProcedureLog $papers,
        private SiteLog $log,
        private KitchenPlans $plans,
        private Now $now,
    ) {
    }

    /** Whether a text is one, by how it begins. */
    public static function isOne(string $text): bool
    {
        return preg_match('#^\s*\{\s*"format"\s*:\s*"verjuicer-site/1"#', $text) === 1;
    }

    public function import(string $text, Account $by, bool $isPreview): ImportReport
    {
        $report = new ImportReport();
        $data = json_decode($text);
        $problems = new DocumentProblems();
        $fields = new Fields($data instanceof \stdClass ? $data : new \stdClass(), null, '', $problems);
        if ($fields->text('format') !== KitchenExport::FORMAT) {
            $report->refuse(1, \sprintf('it does not say "format": "%s".', KitchenExport::FORMAT));

            return $report;
        }
        $names = $data instanceof \stdClass && \is_array($data->products ?? null)
            ? array_column($data->products, 'name')
            : [];
        $take = [];
        foreach (
            [
                $this->settings($fields, $by, $problems),
                $this->named($fields, 'suppliers', Supplier::class, $by, KitchenInventory::supplier(...)),
                $this->named($fields, 'pits', Pit::class, $by, KitchenInventory::pit(...)),
                $this->named($fields, 'units', HoldUnit::class, $by, KitchenInventory::unit(...)),
                $this->named($fields, 'products', Product::class, $by, KitchenInventory::product(...)),
                $this->named($fields, 'recipes', Recipe::class, $by, KitchenInventory::recipe(...)),
                $this->named($fields, 'templates', CookTemplate::class, $by, KitchenInventory::template(...)),
                $this->thermometers($fields, $by),
                $this->lots($fields, $names, $by),
                $this->papers($fields, $by),
                $this->plans->taken($fields, $names, $by),
            ] as $part
        ) {
            foreach ($part as $one) {
                $one === null ? ++$report->known : ++$report->new;
                $take[] = $one;
            }
        }
        foreach ($problems->all() as $problem) {
            $report->refuse(1, trim($problem->pointer.' '.$problem->message));
        }
        if ($report->isGood() && !$isPreview) {
            $this->ledger->write($by->site, function () use ($take): void {
                foreach (array_filter($take) as $one) {
                    $one();
                }
                $this->entities->flush();
            });
        }

        return $report;
    }

    /** @return \Generator<int, (\Closure(): mixed)|null> null where they are left as they are */
    private function settings(Fields $fields, Account $by, DocumentProblems $problems): \Generator
    {
        $given = $fields->object('settings')?->unknown() ?? [];
        $isEmpty = $this->connection->fetchOne(
            'SELECT 1 FROM batch WHERE site_id = ? LIMIT 1',
            [$by->site->id->toRfc4122()],
        ) === false;
        if (!$isEmpty) {
            yield null;

            return;
        }
        $strings = array_filter($given, \is_string(...));
        $input = FormInput::filled($strings + ['reason' => 'taken in from a file']);
        $asked = $this->form->read($input, $by->site);
        foreach (array_keys($input->problems) as $field) {
            $problems->add('/settings/'.$field, 'cannot be taken: write it as the page of settings does.');
        }
        yield $asked === null || $asked->values === SiteValues::of($by->site)
            ? null
            : fn () => $this->settings->change($by, $asked->values, $asked->rulesFrom, $asked->reason);
    }

    /**
     * @template T of object
     *
     * @param class-string<T> $class
     * @param \Closure(Fields, string, Site): T $make
     *
     * @return \Generator<int, (\Closure(): mixed)|null>
     */
    private function named(Fields $fields, string $list, string $class, Account $by, \Closure $make): \Generator
    {
        $names = [];
        foreach ($fields->objects($list, false) as $one) {
            $name = mb_substr($one->requiredText('name') ?? '', 0, self::NAME);
            $isHere = isset($names[$name])
                || $this->entities->getRepository($class)->findOneBy(['site' => $by->site, 'name' => $name]) !== null;
            $names[$name] = true;
            $made = $make($one, $name, $by->site);
            yield $isHere ? null : fn () => $this->keep($made);
        }
    }

    private function keep(object $made): void
    {
        $this->entities->persist($made);
        // Later items in the file refer to it by name.
        $this->entities->flush();
    }

    /** @return \Generator<int, (\Closure(): mixed)|null> */
    private function thermometers(Fields $fields, Account $by): \Generator
    {
        foreach ($fields->objects('thermometers', false) as $one) {
            $label = mb_substr($one->requiredText('label') ?? '', 0, 16);
            $here = $this->entities->getRepository(Thermometer::class)->findOneBy(
                ['site' => $by->site, 'label' => $label],
            );
            $thermometer = $here ?? new Thermometer(
                $by->site,
                $label,
                $one->requiredChoice('kind', ThermometerKind::class) ?? ThermometerKind::Instant,
                $one->text('serial') ?? '',
                $one->text('measures') ?? '',
                $one->text('holder') ?? '',
            );
            $retired = $one->instant('retired_at');
            yield $here !== null ? null : function () use ($thermometer, $retired): void {
                $thermometer->retiredAt = $retired === null ? null : new \DateTimeImmutable($retired->rfc3339());
                $this->keep($thermometer);
            };
            $there = [];
            foreach ($here === null ? [] : $this->checks->of($here) as $check) {
                $there[$check->at->epoch.$check->method] = true;
            }
            foreach ($one->objects('checks', false) as $check) {
                yield $this->check($check, $thermometer, $there, $by);
            }
        }
    }

    /**
     * @param array<string, true> $there by moment and method
     *
     * @return (\Closure(): mixed)|null
     */
    private function check(Fields $check, Thermometer $thermometer, array $there, Account $by): ?\Closure
    {
        $at = $check->requiredInstant('at');
        $method = $check->requiredText('method');
        [$expected, $read] = [$check->requiredTemperature('expected'), $check->requiredTemperature('read')];
        $outcome = $check->text('outcome') ?? 'kept';
        $pressure = $check->counted('pressure_hpa');
        if (!\in_array($outcome, AccuracyChecks::OUTCOMES, true)) {
            $check->wrong('outcome', 'must be one of '.implode(', ', AccuracyChecks::OUTCOMES));
        }
        if ($at !== null && $at->isAfter($this->now->instant())) {
            $check->wrong('at', 'lies ahead of now: check its time');
        }
        if ($at === null || $method === null || $expected === null || $read === null) {
            return null;
        }
        if (isset($there[$at->epoch.$method])) {
            return null;
        }
        $words = $at->rfc3339().$method.$expected->tenths.$read->tenths.$read->unit->value;

        return fn () => $this->checks->add(
            Uuid::v5($thermometer->id, $words),
            $thermometer,
            $by,
            $at,
            $method,
            $expected,
            $read,
            $outcome,
            $pressure,
        );
    }

    /**
     * @param array<mixed> $products names of those in the file
     *
     * @return \Generator<int, (\Closure(): mixed)|null>
     */
    private function lots(Fields $fields, array $products, Account $by): \Generator
    {
        $lots = $this->entities->getRepository(Lot::class);
        foreach ($fields->objects('lots', false) as $one) {
            $id = $one->requiredText('id') ?? '';
            $delivery = $one->requiredText('delivery') ?? '';
            $at = $one->requiredInstant('at');
            [$supplier, $product] = [$one->requiredText('supplier'), $one->requiredText('product')];
            $number = $one->requiredText('number') ?? '';
            $hasIds = Uuid::isValid($id) && Uuid::isValid($delivery);
            if (!$hasIds) {
                $one->wrong('id', 'and "delivery" must be UUIDs');
            }
            if (!$hasIds || $at === null || $supplier === null || $product === null) {
                continue;
            }
            $isHere = false;
            foreach ($lots->findBy(['site' => $by->site, 'number' => $number]) as $lot) {
                $isHere = $isHere || ($lot->supplier->name === $supplier && $lot->at()->epoch === $at->epoch);
            }
            if (!\in_array($product, $products, true) && $this->nameOf(Product::class, $product, $by) === null) {
                $one->wrong('product', 'names none of "products": write it there');
            }
            $values = [
                $number,
                $one->count('pieces', 1),
                $one->count('grams', 1),
                $one->whole('price_cents'),
                $one->flag('frozen'),
                $one->temperature('temp'),
                $one->text('thermometer'),
                $one->date('use_by')?->iso(),
                $one->flag('accepted'),
                $one->text('reason'),
            ];
            yield $isHere ? null : function () use ($id, $delivery, $supplier, $product, $values, $at, $by): void {
                [$number, $pieces, $grams, $price, $frozen, $temp, $thermometer, $useBy, $accepted, $reason] = $values;
                $this->keep(new Lot(
                    Uuid::v5($by->site->id, 'lot '.$id),
                    $by->site,
                    Uuid::fromString($delivery),
                    $this->nameOf(Supplier::class, $supplier, $by) ?? new Supplier($by->site, $supplier),
                    $this->nameOf(Product::class, $product, $by) ?? throw new \LogicException('It was asked for.'),
                    $number,
                    $pieces,
                    $grams,
                    $price,
                    $frozen,
                    $temp,
                    $thermometer,
                    $useBy === null ? null : new \DateTimeImmutable($useBy),
                    $accepted,
                    $reason,
                    new \DateTimeImmutable($at->rfc3339()),
                    new \DateTimeImmutable($this->now->instant()->rfc3339()),
                    $by,
                ));
            };
            foreach ($this->logOf($one, $id, $values[1], $by) as $entry) {
                yield $isHere ? null : $entry;
            }
        }
    }

    /**
     * Events of a lot after receiving: storage and discards.
     *
     * @return \Generator<int, \Closure(): mixed>
     */
    private function logOf(Fields $lot, string $lotId, int $pieces, Account $by): \Generator
    {
        $left = $pieces;
        foreach ($lot->objects('log', false) as $one) {
            $id = $one->requiredText('id') ?? '';
            $at = $one->requiredInstant('at');
            $type = $one->requiredText('type') ?? '';
            $members = $one->object('members')?->unknown() ?? [];
            if (preg_match('/^[a-z_]{1,30}$/D', $type) !== 1) {
                $one->wrong('type', 'is none: write it as it was exported');
            }
            $gone = $members['pieces'] ?? 0;
            $left -= $type === 'discard' && \is_int($gone) && $gone > 0 ? $gone : 0;
            if (!\is_int($gone) || $gone < 0 || $left < 0) {
                $one->wrong('members', 'throws away more pieces than came in');
            }
            if ($at === null || $at->isAfter($this->now->instant())) {
                $one->wrong('at', 'lies ahead of now: check its time');
                continue;
            }
            $says = ['by' => $one->text('by') ?? '', 'recorded_at' => $one->text('recorded_at') ?? ''];
            yield fn () => $this->log->add(
                Uuid::v5($by->site->id, "lot $lotId $id"),
                'lot',
                Uuid::v5($by->site->id, 'lot '.$lotId),
                $by,
                $at,
                $type,
                $members + ['imported' => $says],
            );
        }
    }

    /**
     * @template T of object
     *
     * @param class-string<T> $class
     *
     * @return T|null
     */
    private function nameOf(string $class, string $name, Account $by): ?object
    {
        return $this->entities->getRepository($class)->findOneBy(['site' => $by->site, 'name' => $name]);
    }

    /** @return \Generator<int, (\Closure(): mixed)|null> */
    private function papers(Fields $fields, Account $by): \Generator
    {
        $here = [];
        foreach ($this->procedures->of($by->site) as $one) {
            $here[$one->kind->value.$one->number.$one->body.$one->inForceFrom?->epoch] = true;
        }
        foreach ($fields->objects('procedures', false) as $one) {
            $kind = $one->requiredChoice('kind', ProcedureKind::class);
            $from = $one->instant('in_force_from');
            $said = [
                'number' => $one->requiredText('number') ?? '',
                'body' => $one->text('body') ?? '',
                'from' => $from,
                'withdrawn' => $one->flag('withdrawn'),
                'approved_by' => $one->text('approved_by') ?? '',
                'approved_on' => $one->date('approved_on'),
                'approval_number' => $one->text('approval_number') ?? '',
                'reason' => \sprintf(
                    'Taken in from a file, which says: %s (%s, %s)',
                    $one->text('reason') ?? '',
                    $one->text('by') ?? '–',
                    $one->instant('recorded_at')?->rfc3339() ?? '–',
                ),
            ];
            if ($kind === null) {
                continue;
            }
            $isHere = isset($here[$kind->value.$said['number'].$said['body'].$from?->epoch]);
            yield $isHere ? null : fn () => $this->papers->add(Uuid::v7(), $by, $kind, $said);
        }
    }
}
