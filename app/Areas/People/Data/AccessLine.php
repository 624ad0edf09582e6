<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use LucidStep\Core\Access\Access;
use LucidStep\Core\Access\AccessPolicies;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Access\Role;
use OpenApi\Attributes as OA;

/**
 * Something that can be allowed, and to whom it is.
 */
#[OA\Schema(description: 'Something that can be allowed, and to whom it is.')]
final readonly class AccessLine
{
    /**
     * @param  list<string>  $roles from the least on
     */
    public function __construct(
        #[OA\Property] public string $permission,
        #[OA\Property(description: 'What follows "may"')] public string $words,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $roles,
    ) {}

    /**
     * @return list<self> the whole table
     */
    public static function all(AccessPolicies $policies): array
    {
        return array_map(
            static fn(Permission $p): self => new self(
                $p->value,
                $p->words(),
                array_values(
                    array_map(
                        static fn(Role $r): string => $r->value,
                        array_filter(Access::ROLES, static fn(Role $r): bool => Access::allows($r, $p, $policies)),
                    ),
                ),
            ),
            Permission::cases(),
        );
    }
}
