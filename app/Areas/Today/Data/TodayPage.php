<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Data;

use OpenApi\Attributes as OA;

/**
 * What is mine to do now.
 */
#[OA\Schema(description: 'What is mine to do now.')]
final readonly class TodayPage
{
    /**
     * @param  list<TodayCycle>  $cycles by when they are due
     * @param  list<NewsLine>  $news   what changed since one looked last
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: TodayCycle::class))] public array $cycles,
        #[OA\Property] public ?string $next_entry_id,
        #[OA\Property(description: "Entries of running cycles that are nobody's and can be taken")] public int $free_entries,
        #[OA\Property(description: 'In so many cycles')] public int $free_cycles,
        #[OA\Property(items: new OA\Items(ref: NewsLine::class))] public array $news,
        #[OA\Property] public ?string $seen_at,
        #[OA\Property] public string $as_of,
    ) {}
}
