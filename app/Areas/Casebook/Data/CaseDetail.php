<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use LucidStep\App\Areas\Defects\Data\DefectLine;
use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * A case with its text, and where it was walked.
 */
#[OA\Schema(description: 'A case with its text, and where it was walked.')]
final readonly class CaseDetail
{
    /**
     * @param  list<StepEdit>  $steps
     * @param  list<RoutineText>  $routines
     * @param  list<FileRef>  $files
     * @param  list<RequirementLine>  $requirements
     * @param  list<string>  $folder_path
     * @param  list<CaseWalk>  $walks
     * @param  list<DefectLine>  $defects
     * @param  list<CaseMessageLine>  $messages
     * @param  list<ProblemLine>  $problems
     * @param  list<Person>  $others
     */
    public function __construct(
        #[OA\Property] public CaseLine $case,
        #[OA\Property] public int $version,
        #[OA\Property] public string $objective,
        #[OA\Property] public string $preconditions,
        #[OA\Property] public string $postconditions,
        #[OA\Property(items: new OA\Items(ref: StepEdit::class))] public array $steps,
        #[OA\Property(items: new OA\Items(ref: RoutineText::class))] public array $routines,
        #[OA\Property(items: new OA\Items(ref: FileRef::class))] public array $files,
        #[OA\Property(items: new OA\Items(ref: RequirementLine::class))] public array $requirements,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $folder_path,
        #[OA\Property(items: new OA\Items(ref: CaseWalk::class))] public array $walks,
        #[OA\Property(items: new OA\Items(ref: DefectLine::class))] public array $defects,
        #[OA\Property(items: new OA\Items(ref: CaseMessageLine::class))] public array $messages,
        #[OA\Property(items: new OA\Items(ref: ProblemLine::class))] public array $problems,
        #[OA\Property(items: new OA\Items(ref: Person::class))] public array $others,
        #[OA\Property] public ?LogLine $review,
        #[OA\Property] public bool $may_write,
        #[OA\Property] public bool $may_lead,
    ) {}
}
