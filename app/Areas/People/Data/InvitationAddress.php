<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use OpenApi\Attributes as OA;

/**
 * The address at which an invitation is accepted, to be handed over in another way than by mail.
 */
#[OA\Schema(description: 'The address at which an invitation is accepted, to be handed over in another way than by mail.')]
final readonly class InvitationAddress
{
    public function __construct(#[OA\Property] public string $address) {}
}
