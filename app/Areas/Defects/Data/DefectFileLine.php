<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\App\Support\Data\TakenOut;
use OpenApi\Attributes as OA;

/**
 * A file that stands with a defect, or with what somebody said of it.
 */
#[OA\Schema(description: 'A file that stands with a defect, or with what somebody said of it.')]
final readonly class DefectFileLine
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property] public string $media_type,
        #[OA\Property] public int $bytes,
        #[OA\Property] public ?int $width,
        #[OA\Property] public ?int $height,
        #[OA\Property(description: 'Empty once it was taken out')] public string $url,
        #[OA\Property(description: 'Null for what is no picture')] public ?string $thumbnail_url,
        #[OA\Property] public string $added_by_id,
        #[OA\Property] public ?TakenOut $removed,
    ) {}
}
