<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\App\Areas\Setup\Data\CustomFieldLine;
use LucidStep\App\Areas\Setup\Data\ListItemLine;
use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Filters\SavedFilterLine;
use OpenApi\Attributes as OA;

/**
 * What can be chosen where defects are filed, changed and looked for.
 */
#[OA\Schema(description: 'What can be chosen where defects are filed, changed and looked for.')]
final readonly class DefectChoices
{
    /**
     * @param  list<Person>  $people who could have one
     * @param  list<Named>  $builds the newest first
     * @param  list<Named>  $configurations
     * @param  list<ListItemLine>  $components
     * @param  list<string>  $labels
     * @param  list<CustomFieldLine>  $fields
     * @param  list<SavedFilterLine>  $filters
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: Person::class))] public array $people,
        #[OA\Property(items: new OA\Items(ref: Named::class))] public array $builds,
        #[OA\Property(items: new OA\Items(ref: Named::class))] public array $configurations,
        #[OA\Property(items: new OA\Items(ref: ListItemLine::class))] public array $components,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $labels,
        #[OA\Property(items: new OA\Items(ref: CustomFieldLine::class))] public array $fields,
        #[OA\Property(items: new OA\Items(ref: SavedFilterLine::class))] public array $filters,
    ) {}
}
