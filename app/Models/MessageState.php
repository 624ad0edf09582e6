<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

/**
 * What became of a question or a suggestion.
 */
enum MessageState: string
{
    case Open = 'open';
    case Answered = 'answered';
    case Taken = 'taken';
    case Declined = 'declined';
}
