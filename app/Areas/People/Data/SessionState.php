<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use LucidStep\App\Support\Data\Person;
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
        #[OA\Property] public Person $user,
        #[OA\Property] public string $email,
        #[OA\Property(items: new OA\Items(ref: ProjectSummary::class))] public array $projects,
        #[
            OA\Property(description: 'With it a device locks what this person has not sent yet, when they leave: 32 bytes, base64'),
        ]
        public string $device_key,
        #[OA\Property(description: 'Whether one is an owner of the installation')] public bool $is_owner,
        #[OA\Property] public PreferenceSet $preferences,
    ) {}
}
