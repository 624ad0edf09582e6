<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * An entry that failed and can be walked again after a fix.
 */
#[OA\Schema(description: 'An entry that failed and can be walked again after a fix.')]
final readonly class RetestLine
{
    /**
     * @param  list<string>  $fixed
     * @param  list<string>  $waits_on
     */
    public function __construct(
        #[OA\Property] public string $entry_id,
        #[OA\Property] public string $case_key,
        #[OA\Property] public string $title,
        #[OA\Property] public string $cycle_key,
        #[OA\Property] public string $cycle_name,
        #[OA\Property] public ?Person $assignee,
        #[OA\Property(description: 'The build it was walked on last; empty where it names none')] public string $walked_on,
        #[OA\Property(description: 'The build to walk it on')] public string $build,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'Keys of its defects that are fixed')] public array $fixed,
        #[
            OA\Property(items: new OA\Items(type: 'string'), description: 'Keys of its other open defects: until they are fixed it waits'),
        ]
        public array $waits_on,
        #[OA\Property(description: 'Whether its cycle tests an earlier build')] public bool $behind,
        #[OA\Property(description: 'When the newest of its fixes was said')] public string $at,
    ) {}
}
