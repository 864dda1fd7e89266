<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Verjuicer\App\Operations\Entry\DetailForm;
use Verjuicer\Core\Event\Field;
use Verjuicer\Core\Event\Kind;
use Verjuicer\Core\Event\Kinds\Cook;

/** One step a batch may take next, and what its form asks for. */
final readonly class StepOffer
{
    /** @param list<Field> $fields but the piece, which is chosen apart */
    private function __construct(
        public string $kind,
        public array $fields,
        public bool $asksReason,
        public bool $hasRecipe,
        public bool $isOfPiece,
        public bool $partsWays,
        public bool $beginsStage,
        public bool $isMove,
        public bool $asksTemperature,
    ) {
    }

    public static function of(Kind $kind, string $stage): self
    {
        $isCook = $kind->class === Cook::class;

        return new self(
            $kind->name(),
            array_values(
                array_filter(
                    DetailForm::fields($kind),
                    // What meat is braised in is said on the log line.
                    static fn (Field $field): bool => $field->name !== 'piece'
                        && !($isCook && $field->name === 'recipe'),
                ),
            ),
            DetailForm::asksReason($kind),
            !$isCook && isset($kind->fields['recipe']),
            $kind->partsWays() || isset($kind->fields['piece']),
            $kind->partsWays(),
            $kind->beginsStage(),
            $isCook && $stage === 'cook',
            $isCook && !\in_array($stage, ['cook', 'rest'], true),
        );
    }

    /** The key of what its button says. */
    public function words(): string
    {
        return match (true) {
            $this->isMove => 'step.move',
            $this->hasRecipe => 'step.with_recipe.'.$this->kind,
            default => 'event.'.$this->kind.'.do',
        };
    }

    /** The key of what keeps it. */
    public function keepWords(): string
    {
        return $this->isMove ? 'step.move' : 'event.'.$this->kind.'.do';
    }
}
