<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\Core\Defects\RetestProgress;
use LucidStep\Core\Defects\RetestResult;
use OpenApi\Attributes as OA;

/**
 * How far a fix is proven by being walked again.
 */
#[OA\Schema(description: 'How far a fix is proven by being walked again.')]
final readonly class FixProgress
{
    /**
     * @param  list<RetestedEntry>  $entries
     */
    private function __construct(
        #[OA\Property] public int $passed,
        #[OA\Property(description: 'So many count')] public int $of,
        #[OA\Property(description: 'Every one passed')] public bool $proven,
        #[OA\Property(description: 'All were walked and none failed, yet not each proves it')] public bool $proposed,
        #[OA\Property(items: new OA\Items(ref: RetestedEntry::class))] public array $entries,
    ) {}

    /**
     * @param  list<RetestedEntry>  $entries
     */
    public static function of(array $entries): self
    {
        $progress = RetestProgress::of(
            array_map(static fn(RetestedEntry $e): array => [$e->asked, RetestResult::from($e->result)], $entries),
        );

        return new self($progress->passed, $progress->of, $progress->isProven, $progress->isProposed, $entries);
    }
}
