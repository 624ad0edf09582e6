<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * One entry's condition on another.
 */
final readonly class Condition
{
    /**
     * @param  string  $entry the entry that waits
     * @param  string  $needs the entry it waits for
     */
    public function __construct(public string $entry, public string $needs, public ConditionKind $kind) {}
}
