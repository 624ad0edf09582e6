<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * What an act on many cases would do.
 */
#[OA\Schema(description: 'What an act on many cases would do.')]
final readonly class BulkEditPreview
{
    /**
     * @param  list<RefusedCase>  $refused
     * @param  list<BulkEditSample>  $samples
     */
    public function __construct(
        #[OA\Property] public int $cases,
        #[OA\Property] public int $changed,
        #[OA\Property] public int $unchanged,
        #[OA\Property(items: new OA\Items(ref: RefusedCase::class))] public array $refused,
        #[OA\Property(items: new OA\Items(ref: BulkEditSample::class))] public array $samples,
    ) {}
}
