<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Doctrine\ORM\EntityManagerInterface;
use Verjuicer\App\Catalogue\Holding\HoldUnit;
use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Catalogue\Product\Doneness;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Recipe\Recipe;
use Verjuicer\App\Catalogue\Supplier\Supplier;
use Verjuicer\App\Catalogue\Template\CookTemplate;
use Verjuicer\App\Catalogue\Thermometer\Thermometer;
use Verjuicer\App\Ledger\Check\AccuracyCheck;
use Verjuicer\App\Ledger\Check\AccuracyChecks;
use Verjuicer\App\Ledger\Log\SiteEvent;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Ledger\Lot\Lot;
use Verjuicer\App\Ledger\Procedure\Procedures;
use Verjuicer\App\Ledger\Procedure\ProcedureVersion;
use Verjuicer\App\Site\Settings\SettingsForm;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Event\FieldValue;

/** A kitchen's data other than records, as `verjuicer-site/1` (docs/format/site.md). */
final readonly class KitchenExport
{
    public const FORMAT = 'verjuicer-site/1';

    public function __construct(
        private EntityManagerInterface $entities,
        private SettingsForm $settings,
        private AccuracyChecks $checks,
        private Procedures $procedures,
        private SiteLog $log,
        private KitchenPlans $plans,
    ) {
    }

    public function json(Site $site): string
    {
        return json_encode(
            [
                'format' => self::FORMAT,
                'settings' => $this->settings->filled($site),
                'suppliers' => $this->all(Supplier::class, $site, static fn (Supplier $one): array => [
                    'name' => $one->name,
                ]),
                'pits' => $this->all(Pit::class, $site, static fn (Pit $one): array => [
                    'name' => $one->name,
                    'oven' => $one->kind->value,
                    'capacity_kg' => $one->capacityKg,
                ]),
                'units' => $this->all(HoldUnit::class, $site, static fn (HoldUnit $one): array => [
                    'name' => $one->name,
                    'kind' => $one->kind->value,
                    'check_minutes' => $one->checkMinutes,
                ]),
                'products' => $this->all(Product::class, $site, self::product(...)),
                'recipes' => $this->all(Recipe::class, $site, static fn (Recipe $one): array => [
                    'name' => $one->name,
                    'kind' => $one->kind->value,
                    'grams_per_kg' => $one->gramsPerKg,
                    'ingredients' => $one->ingredients,
                    'retired' => $one->isRetired,
                ]),
                'templates' => $this->all(CookTemplate::class, $site, static fn (CookTemplate $one): array => [
                    'name' => $one->name,
                    'lines' => $one->lines,
                    'retired' => $one->isRetired,
                ]),
                'thermometers' => $this->all(Thermometer::class, $site, $this->thermometer(...), 'label'),
                'lots' => $this->all(Lot::class, $site, $this->lot(...), 'id'),
                'procedures' => array_map($this->procedure(...), $this->procedures->of($site)),
                'plans' => $this->plans->written($site),
            ],
            \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES
            | \JSON_PRESERVE_ZERO_FRACTION,
        )."\n";
    }

    /**
     * @template T of object
     *
     * @param class-string<T> $class
     * @param \Closure(T): array<string, mixed> $written
     *
     * @return list<array<string, mixed>>
     */
    private function all(string $class, Site $site, \Closure $written, string $order = 'name'): array
    {
        return array_map(
            $written,
            $this->entities->getRepository($class)->findBy(['site' => $site], [$order => 'ASC']),
        );
    }

    /** @return array<string, mixed> */
    private static function product(Product $one): array
    {
        $doneness = static fn (Doneness $liked): array => [
            'from' => FieldValue::written($liked->from),
            'to' => FieldValue::written($liked->to),
            'feel' => $liked->feel,
        ];

        return [
            'name' => $one->name,
            'animal' => $one->animal->value,
            'form' => $one->form->value,
            'integrity' => $one->integrity->value,
            'usual_grams' => $one->usualGrams,
            'spots' => $one->spots,
            'wrap' => $one->wrap,
            'rest' => $one->rest,
            'yield_least' => $one->yieldLeast,
            'yield_most' => $one->yieldMost,
            'doneness' => $one->doneness() === null ? null : $doneness($one->doneness()),
            'treatments' => $one->treatments,
            'retired' => $one->isRetired,
        ];
    }

    /** @return array<string, mixed> */
    private function thermometer(Thermometer $one): array
    {
        return [
            'label' => $one->label,
            'kind' => $one->kind->value,
            'serial' => $one->serial,
            'measures' => $one->measures,
            'holder' => $one->holder,
            'retired_at' => $one->retiredAt === null ? null : gmdate('Y-m-d\TH:i:s\Z', $one->retiredAt->getTimestamp()),
            'checks' => array_map(static fn (AccuracyCheck $check): array => [
                'id' => $check->id,
                'at' => $check->at->rfc3339(),
                'by' => $check->by,
                'method' => $check->method,
                'expected' => FieldValue::written($check->expected),
                'read' => FieldValue::written($check->read),
                'outcome' => $check->outcome,
                'pressure_hpa' => $check->pressureHpa,
            ], $this->checks->of($one)),
        ];
    }

    /** @return array<string, mixed> */
    private function lot(Lot $one): array
    {
        return [
            'id' => $one->id->toRfc4122(),
            'delivery' => $one->deliveryId->toRfc4122(),
            'supplier' => $one->supplier->name,
            'product' => $one->product->name,
            'number' => $one->number,
            'pieces' => $one->pieces,
            'grams' => $one->grams,
            'price_cents' => $one->priceCents,
            'frozen' => $one->isFrozen,
            'temp' => FieldValue::written($one->temperature()),
            'thermometer' => $one->thermometer,
            'use_by' => $one->useBy?->format('Y-m-d'),
            'accepted' => $one->isAccepted,
            'reason' => $one->reason,
            'at' => $one->at()->rfc3339(),
            'by' => $one->account->initials,
            'recorded_at' => $one->recordedAt()->rfc3339(),
            'log' => array_map(static fn (SiteEvent $entry): array => [
                'id' => $entry->id,
                'at' => $entry->at->rfc3339(),
                'by' => $entry->by,
                'recorded_at' => $entry->recordedAt->rfc3339(),
                'type' => $entry->type,
                'members' => (object) $entry->members,
            ], $this->log->of($one->id)),
        ];
    }

    /** @return array<string, mixed> */
    private function procedure(ProcedureVersion $one): array
    {
        return [
            'kind' => $one->kind->value,
            'number' => $one->number,
            'version' => $one->version,
            'body' => $one->body,
            'in_force_from' => $one->inForceFrom?->rfc3339(),
            'withdrawn' => $one->isWithdrawn,
            'approved_by' => $one->approvedBy,
            'approved_on' => $one->approvedOn?->iso(),
            'approval_number' => $one->approvalNumber,
            'reason' => $one->reason,
            'by' => $one->by,
            'recorded_at' => $one->recordedAt->rfc3339(),
            'trained' => array_map(
                static fn (array $who): array => ['name' => $who['name'], 'at' => $who['at']->rfc3339()],
                $this->procedures->trained($one->id),
            ),
        ];
    }
}
