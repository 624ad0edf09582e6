<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use OpenApi\Attributes as OA;

/**
 * The lists that a project edits, with how often each item is used.
 */
#[OA\Schema(description: 'The lists that a project edits, with how often each item is used.')]
final readonly class ProjectSetup
{
    /**
     * @param  list<ListItemLine>  $types
     * @param  list<ListItemLine>  $priorities
     * @param  list<LabelLine>  $labels
     * @param  list<CustomFieldLine>  $fields
     * @param  list<ListItemLine>  $milestone_types
     * @param  list<ListItemLine>  $phases
     * @param  list<ListItemLine>  $components of defects
     * @param  list<CustomFieldLine>  $defect_fields
     * @param  array<string, string>  $seen
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: ListItemLine::class))] public array $types,
        #[OA\Property(items: new OA\Items(ref: ListItemLine::class))] public array $priorities,
        #[OA\Property(items: new OA\Items(ref: LabelLine::class))] public array $labels,
        #[OA\Property(items: new OA\Items(ref: CustomFieldLine::class))] public array $fields,
        #[OA\Property(items: new OA\Items(ref: ListItemLine::class))] public array $milestone_types,
        #[OA\Property(items: new OA\Items(ref: ListItemLine::class))] public array $phases,
        #[OA\Property(items: new OA\Items(ref: ListItemLine::class))] public array $components,
        #[OA\Property(items: new OA\Items(ref: CustomFieldLine::class))] public array $defect_fields,
        #[OA\Property] public bool $may_write,
        #[
            OA\Property(
                description: 'The state of each part, to be sent along when it is replaced',
                type: 'object',
                additionalProperties: new OA\AdditionalProperties(type: 'string'),
            ),
        ]
        public array $seen,
    ) {}
}
