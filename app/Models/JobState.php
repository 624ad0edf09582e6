<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

/**
 * How far something is that runs beside the request: an import, an export, adding entries.
 */
enum JobState: string
{
    case Reading = 'reading';
    case Ready = 'ready';
    case Running = 'running';
    case Stopping = 'stopping';
    case Done = 'done';
    case Cancelled = 'cancelled';
    case Failed = 'failed';
    case Undone = 'undone';
}
