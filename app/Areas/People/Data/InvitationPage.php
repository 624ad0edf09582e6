<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use OpenApi\Attributes as OA;

/**
 * An invitation as whoever holds its address sees it.
 */
#[OA\Schema(description: 'An invitation as whoever holds its address sees it.')]
final readonly class InvitationPage
{
    public function __construct(
        #[OA\Property] public string $project,
        #[OA\Property] public string $project_code,
        #[OA\Property] public string $inviter,
        #[OA\Property] public string $email,
        #[OA\Property] public string $name,
        #[OA\Property(enum: ['admin', 'lead', 'tester', 'developer', 'reader'])] public string $role,
        #[OA\Property(description: 'Whether this address has an account, which joins by one click')] public bool $has_account,
        #[OA\Property(description: 'Who is signed in here, when it is somebody else')] public ?string $signed_in_as,
        #[OA\Property(description: 'Whether the one who is signed in may join with one click')] public bool $is_me,
    ) {}
}
