<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A step as its author wrote it: three texts, or the use of a routine.
 */
#[OA\Schema(description: 'A step as its author wrote it: three texts, or the use of a routine.')]
final readonly class StepEdit
{
    /**
     * @param  list<FileRef>  $files
     * @param  object  $values texts by name
     */
    public function __construct(
        #[OA\Property] public string $action,
        #[OA\Property] public string $data,
        #[OA\Property] public string $expected,
        #[OA\Property(items: new OA\Items(ref: FileRef::class))] public array $files,
        #[OA\Property] public ?string $routine,
        #[OA\Property(type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'string'))] public object $values,
    ) {}
}
