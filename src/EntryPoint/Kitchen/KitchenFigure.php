<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Kitchen;

use Symfony\Component\Translation\TranslatableMessage;

/** The figure at a link of the kitchen page: "3 to sign". */
final readonly class KitchenFigure
{
    /** @param bool $needsSomebody whether it stands on top of the page, too */
    public function __construct(public TranslatableMessage $words, public bool $needsSomebody)
    {
    }
}
