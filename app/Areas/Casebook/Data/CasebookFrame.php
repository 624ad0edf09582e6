<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use LucidStep\App\Areas\People\Data\ProjectSummary;
use LucidStep\App\Areas\Setup\Data\CustomFieldLine;
use LucidStep\App\Areas\Setup\Data\ListItemLine;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Filters\SavedFilterLine;
use OpenApi\Attributes as OA;

/**
 * What the casebook is made of beside its cases.
 */
#[OA\Schema(description: 'What the casebook is made of beside its cases.')]
final readonly class CasebookFrame
{
    /**
     * @param  list<FolderLine>  $folders
     * @param  list<ListItemLine>  $types
     * @param  list<ListItemLine>  $priorities
     * @param  list<string>  $labels
     * @param  list<CustomFieldLine>  $fields
     * @param  list<RoutineLine>  $routines
     * @param  list<TableLine>  $tables
     * @param  list<SuiteLine>  $suites
     * @param  list<SavedFilterLine>  $filters
     * @param  list<RequirementLine>  $requirements
     * @param  list<Person>  $people
     * @param  list<ProjectSummary>  $projects
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: FolderLine::class))] public array $folders,
        #[OA\Property(items: new OA\Items(ref: ListItemLine::class))] public array $types,
        #[OA\Property(items: new OA\Items(ref: ListItemLine::class))] public array $priorities,
        #[OA\Property(description: 'What a case is of when nobody has said')] public string $usual_type,
        #[OA\Property(description: 'How urgent a case is when nobody has said')] public string $usual_priority,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $labels,
        #[OA\Property(items: new OA\Items(ref: CustomFieldLine::class))] public array $fields,
        #[OA\Property(items: new OA\Items(ref: RoutineLine::class))] public array $routines,
        #[OA\Property(items: new OA\Items(ref: TableLine::class))] public array $tables,
        #[OA\Property(items: new OA\Items(ref: SuiteLine::class))] public array $suites,
        #[OA\Property(items: new OA\Items(ref: SavedFilterLine::class))] public array $filters,
        #[OA\Property(items: new OA\Items(ref: RequirementLine::class))] public array $requirements,
        #[OA\Property(items: new OA\Items(ref: Person::class))] public array $people,
        #[OA\Property(items: new OA\Items(ref: ProjectSummary::class))] public array $projects,
        #[OA\Property] public int $cases,
        #[OA\Property] public int $binned,
        #[OA\Property] public int $waiting,
        #[OA\Property] public bool $may_write,
        #[OA\Property] public bool $may_lead,
    ) {}
}
