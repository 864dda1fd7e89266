<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Kitchen;

use Symfony\Component\Translation\TranslatableMessage;

/** What stands at a door: "3 to sign". */
final readonly class KitchenFigure
{
    /** @param bool $needsSomebody whether it stands on top of the page, too */
    public function __construct(public TranslatableMessage $words, public bool $needsSomebody)
    {
    }
}
