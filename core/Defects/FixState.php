<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

/**
 * A defect of an entry, as far as it takes to say whether the entry can be walked again.
 */
final readonly class FixState
{
    /**
     * @param  ?int  $build where the build that its fix names stands in the order of the project's
     */
    public function __construct(public string $key, public DefectState $state, public ?int $build, public string $buildName = '') {}
}
