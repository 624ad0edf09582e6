<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use LucidStep\App\Areas\Casebook\Data\FileRef;
use LucidStep\App\Areas\Casebook\Queries\ResourceMapper;
use OpenApi\Attributes as OA;

/**
 * A step as it is walked: routines written out, values filled in.
 *
 * @phpstan-type SnapshotStep array{position: int, action: string, data: string, expected: string,
 *     files?: list<array{sha256: string, name: string}>, routines?: list<string>, uses?: list<string>,
 *     carried_at?: ?string}
 */
#[OA\Schema(description: 'A step as it is walked: routines written out, values filled in.')]
final readonly class StepText
{
    /**
     * @param  list<FileRef>  $files reference pictures
     * @param  list<string>  $routines those it stands in, outermost first
     * @param  list<string>  $uses     the columns whose values stand in it
     */
    public function __construct(
        #[OA\Property] public int $position,
        #[OA\Property] public string $action,
        #[OA\Property] public string $data,
        #[OA\Property] public string $expected,
        #[OA\Property(items: new OA\Items(ref: FileRef::class))] public array $files,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $routines,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'The columns whose values stand in it')] public array $uses,
        #[
            OA\Property(description: 'Since when it stands unchanged in a newer version of the case: a verdict from before is carried'),
        ]
        public ?string $carried_at,
    ) {}

    /**
     * @param  SnapshotStep  $step
     */
    public static function fromSnapshot(array $step): self
    {
        return new self(
            $step['position'],
            $step['action'],
            $step['data'],
            $step['expected'],
            ResourceMapper::files($step['files'] ?? []),
            $step['routines'] ?? [],
            $step['uses'] ?? [],
            $step['carried_at'] ?? null,
        );
    }
}
