<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Data;

use OpenApi\Attributes as OA;

/**
 * How far a picture differs from the one that it should look like.
 */
#[OA\Schema(description: 'How far a picture differs from the one that it should look like.')]
final readonly class PictureComparison
{
    /**
     * @param  list<PictureRegion>  $ignored
     */
    public function __construct(
        #[OA\Property] public string $evidence_id,
        #[OA\Property] public string $reference,
        #[OA\Property] public string $reference_url,
        #[OA\Property] public string $seen_url,
        #[OA\Property] public string $difference_url,
        #[OA\Property] public int $compared,
        #[OA\Property] public int $differing,
        #[OA\Property] public float $share,
        #[OA\Property] public ?PictureRegion $around,
        #[OA\Property(items: new OA\Items(ref: PictureRegion::class))] public array $ignored,
        #[OA\Property] public int $reference_width,
        #[OA\Property] public int $reference_height,
        #[OA\Property] public int $width,
        #[OA\Property] public int $height,
    ) {}
}
