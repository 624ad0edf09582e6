<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use OpenApi\Attributes as OA;

/**
 * Something that configurations differ in.
 */
#[OA\Schema(description: 'Something that configurations differ in.')]
final readonly class AxisLine
{
    /**
     * @param  list<AxisValue>  $values
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property(items: new OA\Items(ref: AxisValue::class))] public array $values,
    ) {}
}
