<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Resources;

use OpenApi\Attributes as OA;

/**
 * What is mine to do now.
 */
#[OA\Schema(description: 'What is mine to do now.')]
final readonly class TodayPage
{
    /**
     * @param  list<TodayCycle>  $cycles
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: TodayCycle::class))]
        public array $cycles,
        #[OA\Property]
        public ?string $next_entry_id,
    ) {
    }
}
