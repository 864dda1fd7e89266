<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event;

/** Types of event fields. */
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
