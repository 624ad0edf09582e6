<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use LucidStep\Core\Access\AccessPolicies;
use OpenApi\Attributes as OA;

/**
 * Who may what in a project.
 */
#[OA\Schema(description: 'Who may what in a project.')]
final readonly class AccessPage
{
    /**
     * @param  list<AccessLine>  $lines
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: AccessLine::class))] public array $lines,
        #[OA\Property] public AccessSet $policies,
        #[OA\Property(description: 'How many have part in the project and no second factor')] public int $without_second_factor,
        #[OA\Property(description: 'Whether one may change it')] public bool $may_manage,
    ) {}

    public static function of(AccessPolicies $policies, int $without, bool $manages): self
    {
        return new self(AccessLine::all($policies), AccessSet::from($policies), $without, $manages);
    }
}
