<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Resources;

use OpenApi\Attributes as OA;

/**
 * A case with its text, and where it was walked.
 */
#[OA\Schema(description: 'A case with its text, and where it was walked.')]
final readonly class CaseDetail
{
    /**
     * @param  list<StepText>  $steps
     * @param  list<string>  $folder_path
     * @param  list<CaseWalk>  $walks
     * @param  list<DefectLine>  $defects
     */
    public function __construct(
        #[OA\Property]
        public CaseLine $case,
        #[OA\Property]
        public int $version,
        #[OA\Property]
        public string $objective,
        #[OA\Property]
        public string $preconditions,
        #[OA\Property]
        public string $postconditions,
        #[OA\Property(items: new OA\Items(ref: StepText::class))]
        public array $steps,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $folder_path,
        #[OA\Property(items: new OA\Items(ref: CaseWalk::class))]
        public array $walks,
        #[OA\Property(items: new OA\Items(ref: DefectLine::class))]
        public array $defects,
    ) {
    }
}
