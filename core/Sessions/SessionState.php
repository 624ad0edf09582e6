<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * Where a session stands.
 */
enum SessionState: string
{
    case Running = 'running';
    case Paused = 'paused';
    case Stopped = 'stopped';
    /** Read and signed off by a lead. */
    case Debriefed = 'debriefed';

    public function isOpen(): bool
    {
        return self::Running === $this || self::Paused === $this;
    }
}
