<?php

declare(strict_types=1);

namespace LucidStep\Core\Verdict;

/**
 * Where an attempt stands: at most one of an entry is open.
 */
enum AttemptState: string
{
    case Open = 'open';
    case Finished = 'finished';
    case Abandoned = 'abandoned';
}
