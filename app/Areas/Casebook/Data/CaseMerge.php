<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * My changes and those saved meanwhile, brought together.
 */
#[OA\Schema(description: 'My changes and those saved meanwhile, brought together.')]
final readonly class CaseMerge
{
    /**
     * @param  list<MergedTextLine>  $texts
     * @param  list<MergedStepLine>  $steps
     * @param  list<FileRef>  $files
     */
    public function __construct(
        #[OA\Property] public int $revision,
        #[OA\Property] public string $by,
        #[OA\Property] public string $at,
        #[OA\Property] public int $conflicts,
        #[OA\Property(items: new OA\Items(ref: MergedTextLine::class))] public array $texts,
        #[OA\Property(items: new OA\Items(ref: MergedStepLine::class))] public array $steps,
        #[OA\Property(items: new OA\Items(ref: FileRef::class))] public array $files,
    ) {}
}
