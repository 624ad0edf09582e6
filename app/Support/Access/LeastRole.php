<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Access;

use LucidStep\Core\Access\Role;

/**
 * From which role on a write of the API is allowed at all, whatever its body. The policies say what more is needed.
 */
#[\Attribute(\Attribute::TARGET_METHOD)]
final readonly class LeastRole
{
    /**
     * @param  ?string  $or a policy's ability that lets in whoever has no such role any more, asked of what the address leads to
     */
    public function __construct(public Role $role, public ?string $or = null) {}
}
