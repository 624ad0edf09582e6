<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Resources;

use LucidStep\App\Areas\Casebook\Data\CaseMessageLine;
use OpenApi\Attributes as OA;

/**
 * The answer was kept.
 */
#[OA\Schema(description: 'The answer was kept.')]
final readonly class MessageResult
{
    public function __construct(#[OA\Property] public CaseMessageLine $message, #[OA\Property] public int $case_revision) {}
}
