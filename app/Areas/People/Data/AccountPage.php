<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use OpenApi\Attributes as OA;

/**
 * One's own account: who one is, and where one is signed in.
 */
#[OA\Schema(description: "One's own account: who one is, and where one is signed in.")]
final readonly class AccountPage
{
    /**
     * @param  list<OpenSession>  $sessions the one used last at the top
     */
    public function __construct(
        #[OA\Property] public string $name,
        #[OA\Property] public string $email,
        #[OA\Property(description: 'Since when a second factor is asked for')] public ?string $second_factor_at,
        #[OA\Property(description: 'Recovery codes that are left')] public int $recovery_codes,
        #[OA\Property(items: new OA\Items(ref: OpenSession::class))] public array $sessions,
        #[OA\Property] public PreferenceSet $preferences,
    ) {}
}
