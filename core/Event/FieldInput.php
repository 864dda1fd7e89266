<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event;

/** How a field comes to its value on a form. */
enum FieldInput
{
    /** Typed, or chosen among its values. */
    case Typed;
    /** Chosen from a list of the site with the field's name: its pits, its recipes. */
    case Listed;
    /** Set by a tap or a step of the application, never typed. */
    case Carried;
}
