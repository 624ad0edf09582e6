<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use OpenApi\Attributes as OA;

/**
 * A project as an owner sees it, who may have no part in it: its name, and nothing of what is in it.
 */
#[OA\Schema(description: 'A project as an owner sees it, who may have no part in it: its name, and nothing of what is in it.')]
final readonly class InstallationProject
{
    /**
     * @param  list<string>  $admins names
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $admins,
        #[OA\Property] public int $people,
        #[OA\Property(description: 'Since when nobody writes in it any more')] public ?string $archived_at,
        #[OA\Property(description: "One's own part in it")] public ?string $role,
    ) {}
}
