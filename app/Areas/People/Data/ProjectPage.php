<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * A project with what its lists filter by.
 */
#[OA\Schema(description: 'A project with what its lists filter by.')]
final readonly class ProjectPage
{
    /**
     * @param  list<Named>  $builds
     * @param  list<Person>  $people
     */
    public function __construct(
        #[OA\Property] public ProjectSummary $project,
        #[OA\Property(items: new OA\Items(ref: Named::class))] public array $builds,
        #[OA\Property(items: new OA\Items(ref: Person::class))] public array $people,
    ) {}
}
