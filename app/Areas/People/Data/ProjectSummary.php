<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use LucidStep\App\Models\Project;
use LucidStep\Core\Access\Role;
use OpenApi\Attributes as OA;

/**
 * A project one has a part in, with one's role.
 */
#[OA\Schema(description: "A project one has a part in, with one's role.")]
final readonly class ProjectSummary
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $time_zone,
        #[OA\Property(enum: ['admin', 'lead', 'tester', 'developer', 'reader'])] public string $role,
        #[OA\Property(description: 'Since when nobody writes in it any more')] public ?string $archived_at,
    ) {}

    public static function from(Project $project, Role $role): self
    {
        return new self(
            $project->id,
            $project->code,
            $project->name,
            $project->time_zone,
            $role->value,
            $project->archived_at?->toIso8601ZuluString(),
        );
    }
}
