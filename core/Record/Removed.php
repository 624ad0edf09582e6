<?php

declare(strict_types=1);

namespace LucidStep\Core\Record;

/**
 * What was taken out of an attempt with its trace, as the chain of its cycle says.
 */
final readonly class Removed
{
    /**
     * @param  array<string, true>  $files SHA-256 of each
     * @param  array<string, true>  $texts the digests under which they stand in their events
     */
    public function __construct(public array $files = [], public array $texts = []) {}
}
