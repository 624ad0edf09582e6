<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\App\Areas\Evidence\Data\EvidenceItem;
use LucidStep\App\Support\Data\Named;
use OpenApi\Attributes as OA;

/**
 * A defect with everything about it.
 */
#[OA\Schema(description: 'A defect with everything about it.')]
final readonly class DefectDetail
{
    /**
     * @param  list<string>  $moves
     * @param  list<DefectOrigin>  $origins
     * @param  list<DefectChangeLine>  $history
     * @param  list<EvidenceItem>  $evidence
     * @param  list<Named>  $builds
     */
    public function __construct(
        #[OA\Property] public DefectLine $defect,
        #[OA\Property] public string $body,
        #[OA\Property] public string $expected,
        #[OA\Property] public string $actual,
        #[OA\Property] public int $version,
        #[OA\Property] public ?Named $fixed_build,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $moves,
        #[OA\Property(items: new OA\Items(ref: DefectOrigin::class))] public array $origins,
        #[OA\Property(items: new OA\Items(ref: DefectChangeLine::class))] public array $history,
        #[OA\Property(items: new OA\Items(ref: EvidenceItem::class))] public array $evidence,
        #[OA\Property(items: new OA\Items(ref: Named::class))] public array $builds,
        #[OA\Property] public string $markdown,
        #[OA\Property] public string $plain,
    ) {}
}
