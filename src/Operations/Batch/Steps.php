<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Symfony\Component\HttpFoundation\InputBag;
use Symfony\Component\Translation\TranslatableMessage;

/** What can be done next with a batch: the likely step, the likeliest taps, and all others. */
final readonly class Steps
{
    private const AT_HAND = 3;

    /**
     * @param string $batchId RFC 4122
     * @param list<int> $held the pieces of the batch
     * @param list<StepOffer> $offers in the order of the work
     * @param StepOffer|null $likely null where none is next: it is too warm for it yet, or asks for an action first
     * @param list<string> $taps what takes one tap and nothing else: "wrap/with/paper", the likeliest first
     * @param array<string, array<string>> $lists what listed fields are chosen from
     * @param InputBag<string>|null $sent what could not be kept, as it was sent
     * @param array<string, TranslatableMessage> $problems what is wrong with it, by field
     */
    public function __construct(
        public string $batchId,
        public string $stage,
        public bool $isOpen,
        public array $held,
        public bool $isMass,
        public array $offers,
        public ?StepOffer $likely,
        public array $taps,
        public array $lists,
        public ?InputBag $sent,
        public array $problems,
    ) {
    }

    /** @return list<string> the likeliest taps, those that settle an action aside */
    public function tapsAtHand(): array
    {
        $taps = array_filter($this->taps, static fn (string $tap): bool => !str_starts_with($tap, 'action/'));

        return \array_slice(array_values($taps), 0, self::AT_HAND);
    }

    public function hasPieces(): bool
    {
        return \count($this->held) > 1 && !$this->isMass;
    }

    /** Whether it is the form of this kind that could not be kept. */
    public function isBack(string $kind): bool
    {
        return $this->sent !== null && $this->sent->getString('type') === $kind;
    }
}
