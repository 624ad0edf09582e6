<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A step as the tester will see it.
 */
#[OA\Schema(description: 'A step as the tester will see it.')]
final readonly class PreviewStep
{
    /**
     * @param  list<string>  $routines
     * @param  list<PreviewPart>  $action
     * @param  list<PreviewPart>  $data
     * @param  list<PreviewPart>  $expected
     * @param  list<FileRef>  $files
     */
    public function __construct(
        #[OA\Property] public int $position,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $routines,
        #[OA\Property(items: new OA\Items(ref: PreviewPart::class))] public array $action,
        #[OA\Property(items: new OA\Items(ref: PreviewPart::class))] public array $data,
        #[OA\Property(items: new OA\Items(ref: PreviewPart::class))] public array $expected,
        #[OA\Property(items: new OA\Items(ref: FileRef::class))] public array $files,
    ) {}
}
