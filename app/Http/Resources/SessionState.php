<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Resources;

use LucidStep\App\Models\Membership;
use LucidStep\App\Models\User;
use OpenApi\Attributes as OA;

/**
 * Who is signed in.
 */
#[OA\Schema(description: 'Who is signed in.')]
final readonly class SessionState
{
    /**
     * @param  list<ProjectSummary>  $projects
     */
    public function __construct(
        #[OA\Property]
        public Person $user,
        #[OA\Property]
        public string $email,
        #[OA\Property(items: new OA\Items(ref: ProjectSummary::class))]
        public array $projects,
    ) {
    }

    public static function from(User $user): self
    {
        $memberships = Membership::query()->where('user_id', $user->id)->with('project')->get()->sortBy('project.name');

        return new self(Person::from($user), $user->email, array_values($memberships->map(static fn (Membership $m): ProjectSummary => ProjectSummary::from($m->project, $m->role))->all()));
    }
}
