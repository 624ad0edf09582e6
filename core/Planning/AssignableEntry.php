<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * An entry as something to be done: how long it takes, and whose it is already.
 */
final readonly class AssignableEntry
{
    /**
     * @param  int  $seconds what is left of it
     */
    public function __construct(public string $id, public int $seconds, public ?string $assignee = null) {}
}
