<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Resources;

use LucidStep\Core\Defects\Draft;
use OpenApi\Attributes as OA;

/**
 * A defect with everything filled in, to be edited and filed.
 */
#[OA\Schema(description: 'A defect with everything filled in, to be edited and filed.')]
final readonly class DefectDraft
{
    public function __construct(
        #[OA\Property] public string $title,
        #[OA\Property] public string $body,
        #[OA\Property] public string $plain,
        #[OA\Property] public string $expected,
        #[OA\Property] public string $actual,
    ) {}

    public static function from(Draft $draft): self
    {
        return new self($draft->title, $draft->markdown, $draft->plain, $draft->expected, $draft->actual);
    }
}
