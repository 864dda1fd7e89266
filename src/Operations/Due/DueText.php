<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Due;

use Symfony\Contracts\Translation\TranslatorInterface;

/** What a line of what is due says to do. */
final readonly class DueText
{
    public function __construct(private TranslatorInterface $translator)
    {
    }

    public function of(Due $due): string
    {
        $told = $this->translator->trans($due->message, [
            '{temp}' => $due->gate,
            '{rule}' => $this->translator->trans('rule.'.$due->rule),
        ]);

        return $due->more === 0
            ? $told
            : $this->translator->trans('due.more', ['{first}' => $told, '{count}' => (string) $due->more]);
    }
}
