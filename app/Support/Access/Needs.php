<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Access;

use LucidStep\Core\Access\Permission;

/**
 * What somebody must be allowed to use an operation of the API at all, whatever its body; every write says it, and a reading that
 * not all may. The policies say what more is needed.
 */
#[\Attribute(\Attribute::TARGET_METHOD)]
final readonly class Needs
{
    /**
     * @param  ?string  $or a policy's ability that lets in whoever is not allowed any more, asked of what the address leads to
     */
    public function __construct(public Permission $permission, public ?string $or = null) {}
}
