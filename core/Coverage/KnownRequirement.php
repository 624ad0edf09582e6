<?php

declare(strict_types=1);

namespace LucidStep\Core\Coverage;

/**
 * A requirement that is there.
 */
final readonly class KnownRequirement
{
    public function __construct(public string $id, public string $key, public RequirementWords $words, public bool $dropped) {}
}
