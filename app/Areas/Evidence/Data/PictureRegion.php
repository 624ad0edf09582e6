<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Data;

use OpenApi\Attributes as OA;

/**
 * A rectangle of a picture, in pixels.
 */
#[OA\Schema(description: 'A rectangle of a picture, in pixels.')]
final readonly class PictureRegion
{
    public function __construct(
        #[OA\Property] public int $x,
        #[OA\Property] public int $y,
        #[OA\Property] public int $width,
        #[OA\Property] public int $height,
    ) {}
}
