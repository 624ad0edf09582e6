<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Data;

use OpenApi\Attributes as OA;

/**
 * How the project stands, for whoever does not only walk: each role finds filled what it works with.
 */
#[OA\Schema(description: 'How the project stands, for whoever does not only walk: each role finds filled what it works with.')]
final readonly class OverviewPage
{
    /**
     * @param  list<OverviewCycle>  $cycles that run, the one due first at the top
     * @param  list<WalkingNow>  $walking for leads
     * @param  list<TurnedEntry>  $turned since yesterday, for leads; the newest first
     * @param  list<OpenDefect>  $defects for developers
     * @param  list<Failing>  $failing in the background, for admins
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: OverviewCycle::class))] public array $cycles,
        #[OA\Property(description: 'How many more run')] public int $more_cycles,
        #[OA\Property(items: new OA\Items(ref: WalkingNow::class))] public array $walking,
        #[OA\Property(items: new OA\Items(ref: TurnedEntry::class))] public array $turned,
        #[OA\Property(items: new OA\Items(ref: OpenDefect::class))] public array $defects,
        #[OA\Property(items: new OA\Items(ref: Failing::class))] public array $failing,
        #[OA\Property(description: 'Told to leads until a cycle is released')] public ?FirstSteps $first_steps,
        #[OA\Property] public string $as_of,
    ) {}
}
