<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Resources;

use Illuminate\Http\JsonResponse;
use LucidStep\App\Models\LateCommand;
use OpenApi\Attributes as OA;

/**
 * What became of an act of the walk.
 */
#[OA\Schema(description: 'What became of an act of the walk.')]
final readonly class CommandResult
{
    public function __construct(#[OA\Property] public bool $applied, #[OA\Property] public ?string $held_because) {}

    /**
     * The answer to an act: done, or accepted and kept for a lead (202).
     */
    public static function respond(?LateCommand $late): JsonResponse
    {
        return new JsonResponse(self::from($late), null === $late ? 200 : 202);
    }

    public static function from(?LateCommand $late): self
    {
        return new self(null === $late, $late?->why);
    }
}
