<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

/**
 * What is kept of a finished attempt outside its events: how many there were, and the hash of the last.
 */
final readonly class Seal
{
    public function __construct(public int $sequence, public string $head) {}
}
