<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * What a line of a cycle's log tells of. Rules ask for the kind, never for the words.
 */
enum CycleLogKind: string
{
    case Made = 'made';
    case Changed = 'changed';
    case ReviewRequested = 'review_requested';
    case Returned = 'returned';
    case Withdrawn = 'withdrawn';
    case Released = 'released';
    case Closed = 'closed';
    case Abandoned = 'abandoned';
    case Reopened = 'reopened';
    case SignedOff = 'signed_off';
    case EntriesAdded = 'entries_added';
    case AdditionStopped = 'addition_stopped';
    case EntriesChanged = 'entries_changed';
    case EntriesBlocked = 'entries_blocked';
    case EntriesUnblocked = 'entries_unblocked';
    case VersionTaken = 'version_taken';
    case Undone = 'undone';
    case WordsRemoved = 'words_removed';
}
