<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * Where a charter stands, in the order in which a list has them.
 */
enum CharterState: string
{
    case Running = 'running';
    case Waiting = 'waiting';
    case Done = 'done';
    case Debriefed = 'debriefed';
    case Dropped = 'dropped';

    /**
     * @param  ?SessionState  $last of its sessions; null: it has none
     * @param  bool  $dropped whether somebody said that nobody is to run it any more
     */
    public static function of(?SessionState $last, bool $dropped): self
    {
        return match (true) {
            true === $last?->isOpen() => self::Running,
            $dropped => self::Dropped,
            null === $last => self::Waiting,
            SessionState::Debriefed === $last => self::Debriefed,
            default => self::Done,
        };
    }

    /**
     * What comes first in a list: what runs, then what waits by how urgent it is.
     *
     * @param  string  $priority `critical`, `high`, `medium` or `low`
     */
    public function rank(string $priority): int
    {
        $urgency = self::Waiting === $this ? (int) array_search($priority, ['critical', 'high', 'medium', 'low'], true) : 0;

        return 10 * (int) array_search($this, self::cases(), true) + $urgency;
    }
}
