<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Data;

use OpenApi\Attributes as OA;

/**
 * A charter with its sessions.
 */
#[OA\Schema(description: 'A charter with its sessions.')]
final readonly class CharterDetail
{
    /**
     * @param  list<SessionName>  $sessions
     */
    public function __construct(
        #[OA\Property] public CharterLine $charter,
        #[OA\Property(items: new OA\Items(ref: SessionName::class))] public array $sessions,
    ) {}
}
