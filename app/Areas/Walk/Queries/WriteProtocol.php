<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Queries;

use LucidStep\App\Models\Attempt;
use LucidStep\Core\Record\Event;
use LucidStep\Core\Record\Protocol;

/**
 * Writes an attempt down for people to read, as Markdown, from its record alone. Secret values are hidden.
 */
final readonly class WriteProtocol
{
    public function __construct(private ReadRecordNames $names) {}

    /**
     * @param  Attempt  $attempt with entry.cycle
     * @param  list<Event>  $events
     * @param  list<string>  $gone SHA-256 of files that were removed
     *
     * @return array{string, array<string, string>} the protocol, and the names that it was written with, by id
     */
    public function __invoke(Attempt $attempt, array $events, array $gone): array
    {
        $names = ($this->names)($attempt, $events);

        return [Protocol::write($attempt->snapshot, $events, $attempt->entry->cycle_id, $names, $gone), $names];
    }
}
