<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Filters;

use LucidStep\App\Models\SavedFilter;
use OpenApi\Attributes as OA;

/**
 * A filter of a list that was kept.
 */
#[OA\Schema(description: 'A filter of a list that was kept.')]
final readonly class SavedFilterLine
{
    /**
     * @param  object  $filter of any shape
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property] public bool $shared,
        #[OA\Property] public bool $mine,
        #[OA\Property] public string $by,
        #[OA\Property(type: 'object', additionalProperties: true)] public object $filter,
    ) {}

    /**
     * @param  SavedFilter  $f with its user loaded
     * @param  string  $me who reads it
     */
    public static function from(SavedFilter $f, string $me): self
    {
        return new self($f->id, $f->name, $f->shared, $f->user_id === $me, $f->user->name, (object) $f->filter);
    }
}
