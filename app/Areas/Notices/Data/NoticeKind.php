<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Notices\Data;

/**
 * What people are told of.
 */
enum NoticeKind: string
{
    case Assigned = 'assigned';
    case Retest = 'retest';
    case TakenOver = 'taken_over';
    case Released = 'released';
    case Returned = 'returned';
    case Review = 'review';
    case Ended = 'ended';
    case Standstill = 'standstill';
}
