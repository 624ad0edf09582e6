<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\App\Models\DefectLink;
use OpenApi\Attributes as OA;

/**
 * A defect linked to a step or an attempt.
 */
#[OA\Schema(description: 'A defect linked to a step or an attempt.')]
final readonly class LinkedDefect
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property] public string $state,
        #[OA\Property] public string $severity,
        #[OA\Property] public ?int $round,
        #[OA\Property] public ?int $step,
    ) {}

    /**
     * @param  DefectLink  $link with its defect loaded
     */
    public static function from(DefectLink $link): self
    {
        $d = $link->defect;

        return new self($d->id, $d->key, $d->title, $d->state->value, $d->severity, $link->round, $link->step);
    }
}
