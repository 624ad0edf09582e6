<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use LucidStep\App\Support\Data\ChangeOfField;
use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * Something that happened to a case.
 */
#[OA\Schema(description: 'Something that happened to a case.')]
final readonly class LogLine
{
    /**
     * @param  list<ChangeOfField>  $changes
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $kind,
        #[OA\Property] public string $at,
        #[OA\Property] public Person $by,
        #[OA\Property] public ?int $version,
        #[OA\Property] public string $comment,
        #[OA\Property(items: new OA\Items(ref: ChangeOfField::class))] public array $changes,
    ) {}
}
