<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use OpenApi\Attributes as OA;

/**
 * A field that the project added to its cases or defects.
 */
#[OA\Schema(description: 'A field that the project added to its cases or defects.')]
final readonly class CustomFieldLine
{
    /**
     * @param  list<string>  $choices
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property(enum: ['text', 'number', 'date', 'choice', 'yes_no'])] public string $kind,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $choices,
        #[OA\Property] public bool $required,
        #[OA\Property] public int $uses,
    ) {}
}
