<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use LucidStep\App\Areas\Evidence\Data\StorageState;
use OpenApi\Attributes as OA;

/**
 * How a project walks: its policies, its reasons and its evidence.
 */
#[OA\Schema(description: 'How a project walks: its policies, its reasons and its evidence.')]
final readonly class WalkSetup
{
    /**
     * @param  list<ListItemLine>  $reasons_pass
     * @param  list<ListItemLine>  $reasons_fail
     * @param  list<ListItemLine>  $reasons_blocked
     * @param  list<ListItemLine>  $reasons_not_applicable
     * @param  list<HandsetAddressLine>  $handset
     * @param  array<string, string>  $seen
     */
    public function __construct(
        #[OA\Property] public PolicySet $policies,
        #[OA\Property(items: new OA\Items(ref: ListItemLine::class))] public array $reasons_pass,
        #[OA\Property(items: new OA\Items(ref: ListItemLine::class))] public array $reasons_fail,
        #[OA\Property(items: new OA\Items(ref: ListItemLine::class))] public array $reasons_blocked,
        #[OA\Property(items: new OA\Items(ref: ListItemLine::class))] public array $reasons_not_applicable,
        #[OA\Property] public StorageState $storage,
        #[OA\Property(items: new OA\Items(ref: HandsetAddressLine::class))] public array $handset,
        #[OA\Property] public bool $may_lead,
        #[OA\Property] public bool $may_admin,
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
