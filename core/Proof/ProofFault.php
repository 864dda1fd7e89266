<?php

declare(strict_types=1);

namespace Verjuicer\Core\Proof;

/** Faults of a file of proof. */
enum ProofFault: string
{
    case NotSigned = 'not_signed';
    case AlteredFile = 'altered_file';
    case NotAProof = 'not_a_proof';
    case KeyNotNamed = 'key_not_named';
    case KeyUnvouched = 'key_unvouched';
    case SealNotSigned = 'seal_not_signed';
    case ChainBroken = 'chain_broken';
    case RowAltered = 'row_altered';
    case RowNotChained = 'row_not_chained';
    case EventNotWritten = 'event_not_written';
    case EventLeftOut = 'event_left_out';
    case EventDiffers = 'event_differs';
    case CheckNotWritten = 'check_not_written';
    case BatchDiffers = 'batch_differs';
    case SiteDiffers = 'site_differs';
    case VerdictDiffers = 'verdict_differs';
    case SaidBroken = 'said_broken';
    case PageDiffers = 'page_differs';
}
