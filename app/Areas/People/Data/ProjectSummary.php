<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use LucidStep\App\Models\Project;
use LucidStep\Core\Access\Access;
use LucidStep\Core\Access\AccessPolicies;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Access\Role;
use OpenApi\Attributes as OA;

/**
 * A project one has a part in, with one's role.
 */
#[OA\Schema(description: "A project one has a part in, with one's role.")]
final readonly class ProjectSummary
{
    /**
     * @param  list<string>  $may
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $time_zone,
        #[OA\Property(enum: ['admin', 'lead', 'tester', 'developer', 'reader'])] public string $role,
        #[OA\Property(description: 'Since when nobody writes in it any more')] public ?string $archived_at,
        #[OA\Property(description: 'What one may do in it', items: new OA\Items(type: 'string'))] public array $may,
        #[OA\Property(description: 'It lets nobody in without a second factor, and one has none')] public bool $lacks_second_factor,
    ) {}

    /**
     * @param  bool  $factor whether whoever asks has a second factor
     */
    public static function from(Project $project, Role $role, bool $factor): self
    {
        $policies = AccessPolicies::fromArray($project->access);

        return new self(
            $project->id,
            $project->code,
            $project->name,
            $project->time_zone,
            $role->value,
            $project->archived_at?->toIso8601ZuluString(),
            array_map(static fn(Permission $p): string => $p->value, Access::of($role, $policies)),
            $policies->secondFactorRequired && !$factor,
        );
    }
}
