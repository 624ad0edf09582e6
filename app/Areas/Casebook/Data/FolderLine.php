<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use LucidStep\App\Models\Folder;
use LucidStep\App\Support\Revisions\Seen;
use OpenApi\Attributes as OA;

/**
 * A folder of the casebook, with how many cases stand in it.
 */
#[OA\Schema(description: 'A folder of the casebook, with how many cases stand in it.')]
final readonly class FolderLine
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public ?string $parent_id,
        #[OA\Property] public string $name,
        #[OA\Property] public int $cases,
        #[OA\Property(description: 'The state of its name, to be sent along when it gets another')] public string $seen,
    ) {}

    public static function of(Folder $folder, int $cases): self
    {
        return new self($folder->id, $folder->parent_id, $folder->name, $cases, Seen::of($folder->name));
    }
}
