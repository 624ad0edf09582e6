<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Data\TakenOut;
use OpenApi\Attributes as OA;

/**
 * What somebody said of a defect.
 */
#[OA\Schema(description: 'What somebody said of a defect.')]
final readonly class DefectCommentLine
{
    /**
     * @param  list<DefectFileLine>  $files
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public Person $author,
        #[OA\Property(description: 'Markdown; empty once it was taken out')] public string $text,
        #[OA\Property] public string $at,
        #[OA\Property] public ?string $edited_at,
        #[OA\Property(description: 'Until when its author may mend it')] public string $stands_at,
        #[OA\Property] public ?TakenOut $removed,
        #[OA\Property(items: new OA\Items(ref: DefectFileLine::class))] public array $files,
    ) {}
}
