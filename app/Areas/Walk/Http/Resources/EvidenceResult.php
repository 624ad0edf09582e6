<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Resources;

use LucidStep\App\Areas\Evidence\Data\EvidenceItem;
use OpenApi\Attributes as OA;

/**
 * What became of a file: attached, or kept until a lead decides.
 */
#[OA\Schema(description: 'What became of a file: attached, or kept until a lead decides.')]
final readonly class EvidenceResult
{
    public function __construct(
        #[OA\Property] public bool $applied,
        #[OA\Property] public ?string $held_because,
        #[OA\Property] public ?EvidenceItem $evidence,
    ) {}
}
