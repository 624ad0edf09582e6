<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Http\Resources;

use OpenApi\Attributes as OA;

/**
 * Notes that follow a person through the day.
 */
#[OA\Schema(description: 'Notes that follow a person through the day.')]
final readonly class ScratchNote
{
    public function __construct(#[OA\Property] public string $text) {}
}
