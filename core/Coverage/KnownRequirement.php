<?php

declare(strict_types=1);

namespace LucidStep\Core\Coverage;

/**
 * A requirement that is there.
 */
final readonly class KnownRequirement
{
    /**
     * @param  ?string  $parent id of the one above it
     */
    public function __construct(
        public string $id,
        public string $key,
        public RequirementWords $words,
        public bool $dropped,
        public ?string $parent = null,
    ) {}
}
