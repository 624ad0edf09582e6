<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * A cycle with everything that is planned of it.
 */
#[OA\Schema(description: 'A cycle with everything that is planned of it.')]
final readonly class CycleDetail
{
    /**
     * @param  list<Person>  $testers
     * @param  list<Person>  $watchers
     * @param  list<StateChoice>  $next
     */
    public function __construct(
        #[OA\Property] public CycleSummary $cycle,
        #[OA\Property] public ?MilestoneLine $milestone,
        #[OA\Property] public string $phase,
        #[OA\Property] public string $folder,
        #[OA\Property] public string $priority,
        #[OA\Property] public ?string $build_id,
        #[OA\Property] public ?string $environment_id,
        #[OA\Property] public ?string $default_assignee_id,
        #[OA\Property(items: new OA\Items(ref: Person::class))] public array $testers,
        #[OA\Property(items: new OA\Items(ref: Person::class))] public array $watchers,
        #[OA\Property] public int $revision,
        #[OA\Property(items: new OA\Items(ref: StateChoice::class))] public array $next,
        #[OA\Property] public ?SignOffLine $signed_off,
        #[OA\Property] public ?string $cloned_from,
    ) {}
}
