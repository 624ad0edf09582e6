<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

/**
 * The entries that a cycle's clone would have, and what of the old ones it cannot have.
 */
final readonly class ClonedEntries
{
    /**
     * @param  list<\stdClass>  $entries of the old cycle in its order, with `version`, `row_ids` (a list or null), `rounds` and
     *     `assignee_id` as the clone has them
     * @param  list<\stdClass>  $conditions entry_id, needs_id, kind among these entries
     * @param  list<string>  $notes a sentence for each thing that the clone cannot have
     */
    public function __construct(public array $entries, public array $conditions, public array $notes) {}

    public function windows(): int
    {
        return \count(array_filter($this->entries, static fn(\stdClass $e): bool => null !== $e->not_before || null !== $e->not_after));
    }
}
