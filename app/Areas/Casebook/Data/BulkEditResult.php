<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * What an act on many cases did; it can be undone by its id.
 */
#[OA\Schema(description: 'What an act on many cases did; it can be undone by its id.')]
final readonly class BulkEditResult
{
    /**
     * @param  list<string>  $keys
     * @param  list<RefusedCase>  $refused
     */
    public function __construct(
        #[OA\Property] public ?string $act_id,
        #[OA\Property] public string $title,
        #[OA\Property] public int $changed,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $keys,
        #[OA\Property(items: new OA\Items(ref: RefusedCase::class))] public array $refused,
    ) {}
}
