<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event;

/** What a field of an event can hold. */
enum FieldType: string
{
    case Temperature = 'temperature';
    case Text = 'text';
    case Choice = 'choice';
    case Flag = 'flag';
    case Whole = 'whole';
    case Weight = 'weight';
    case Moment = 'moment';
    case Date = 'date';
    case Words = 'words';
}
