<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

/**
 * What was taken out of an attempt, or of the chain of its cycle, with its trace, as that chain says.
 */
final readonly class Removed
{
    /**
     * @param  array<string, true>  $files SHA-256 of each
     * @param  array<string, true>  $texts the digests under which they stand in their events
     */
    public function __construct(public array $files = [], public array $texts = []) {}

    /**
     * What the chain of a cycle says was taken out of itself.
     *
     * @param  list<StoredEvent>  $chain
     */
    public static function ofCycle(string $cycle, array $chain): self
    {
        $texts = [];
        foreach ($chain as $stored) {
            $said = $stored->event->payload;
            if ('text_removed' === $stored->event->kind && $cycle === ($said['cycle'] ?? null)) {
                $texts += array_fill_keys(array_filter((array) ($said['texts'] ?? []), is_string(...)), true);
            }
        }

        return new self([], $texts);
    }
}
