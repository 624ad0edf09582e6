<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects\Tracker;

/**
 * How a call to an outside tracker stands.
 */
enum CallState: string
{
    case Waiting = 'waiting';
    case Sent = 'sent';

    /** The tracker wants it not as it is: somebody mends something and sends it again, or leaves it out. */
    case Refused = 'refused';
    case LeftOut = 'left_out';

    /**
     * Whether those after it, of the same defect, may go.
     */
    public function isDone(): bool
    {
        return self::Sent === $this || self::LeftOut === $this;
    }
}
