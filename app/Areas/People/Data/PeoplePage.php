<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use OpenApi\Attributes as OA;

/**
 * The people of a project, and who is invited.
 */
#[OA\Schema(description: 'The people of a project, and who is invited.')]
final readonly class PeoplePage
{
    /**
     * @param  list<ProjectPerson>  $people by name
     * @param  list<OpenInvitation>  $invitations the newest first; told to admins
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: ProjectPerson::class))] public array $people,
        #[OA\Property(items: new OA\Items(ref: OpenInvitation::class))] public array $invitations,
        #[OA\Property(description: 'Whether one invites, changes roles and takes people out')] public bool $may_manage,
    ) {}
}
