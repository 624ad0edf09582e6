<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use OpenApi\Attributes as OA;

/**
 * What an act on many defects would do.
 */
#[OA\Schema(description: 'What an act on many defects would do.')]
final readonly class DefectActPreview
{
    /**
     * @param  list<RefusedDefect>  $refused
     * @param  list<DefectActSample>  $samples
     */
    public function __construct(
        #[OA\Property] public int $defects,
        #[OA\Property] public int $changed,
        #[OA\Property] public int $unchanged,
        #[OA\Property(items: new OA\Items(ref: RefusedDefect::class))] public array $refused,
        #[OA\Property(items: new OA\Items(ref: DefectActSample::class))] public array $samples,
    ) {}
}
