<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event;

/** How a field comes to its value on a form. */
enum FieldInput
{
    /** Somebody types it, or chooses among its values. */
    case Typed;
    /** Somebody chooses from a list of the site that has the field's name: its pits, its recipes. */
    case Listed;
    /** A tap says it, or a step of the application; nobody types it. */
    case Carried;
}
