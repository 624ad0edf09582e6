<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use OpenApi\Attributes as OA;

/**
 * A person of a project.
 */
#[OA\Schema(description: 'A person of a project.')]
final readonly class ProjectPerson
{
    /**
     * @param  list<string>  $open such as "12 entries", "1 defect"
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property(description: 'Told to admins of the project')] public ?string $email,
        #[OA\Property(enum: ['admin', 'lead', 'tester', 'developer', 'reader'])] public string $role,
        #[
            OA\Property(description: 'What they have to do and is handed on when they leave', items: new OA\Items(type: 'string')),
        ]
        public array $open,
    ) {}
}
