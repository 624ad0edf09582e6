<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

/**
 * What was decided of a command that came too late.
 */
enum LateState: string
{
    case Waiting = 'waiting';
    case Accepted = 'accepted';
    case SetAside = 'set_aside';

    public function label(): string
    {
        return str_replace('_', ' ', $this->value);
    }
}
