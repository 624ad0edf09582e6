<?php

declare(strict_types=1);

namespace LucidStep\Core\Coverage;

/**
 * A requirement with the cases linked to it.
 */
final readonly class RequirementNode
{
    /**
     * @param  ?string  $parent the one above it; one that is not among those given counts as none
     * @param  list<int>  $cases by their places among all cases
     */
    public function __construct(public string $id, public ?string $parent, public array $cases) {}
}
