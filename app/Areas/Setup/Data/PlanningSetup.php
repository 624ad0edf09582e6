<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use LucidStep\App\Support\Data\Named;
use OpenApi\Attributes as OA;

/**
 * What cycles are planned with: releases, environments, axes, configurations, the calendar, people and lists.
 */
#[OA\Schema(description: 'What cycles are planned with: releases, environments, axes, configurations, the calendar, people and lists.')]
final readonly class PlanningSetup
{
    /**
     * @param  list<Named>  $releases
     * @param  list<BuildLine>  $builds
     * @param  list<EnvironmentLine>  $environments
     * @param  list<AxisLine>  $axes
     * @param  list<ForbiddenPair>  $forbidden
     * @param  list<ConfigurationLine>  $configurations
     * @param  list<int>  $working_days
     * @param  list<string>  $holidays
     * @param  list<Planner>  $people
     * @param  list<ListItemLine>  $milestone_types
     * @param  list<ListItemLine>  $phases
     * @param  array<string, string>  $seen
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: Named::class))] public array $releases,
        #[OA\Property(items: new OA\Items(ref: BuildLine::class))] public array $builds,
        #[OA\Property(items: new OA\Items(ref: EnvironmentLine::class))] public array $environments,
        #[OA\Property(items: new OA\Items(ref: AxisLine::class))] public array $axes,
        #[OA\Property(items: new OA\Items(ref: ForbiddenPair::class))] public array $forbidden,
        #[OA\Property(items: new OA\Items(ref: ConfigurationLine::class))] public array $configurations,
        #[OA\Property(items: new OA\Items(type: 'integer'))] public array $working_days,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $holidays,
        #[OA\Property] public string $time_zone,
        #[OA\Property(items: new OA\Items(ref: Planner::class))] public array $people,
        #[OA\Property(items: new OA\Items(ref: ListItemLine::class))] public array $milestone_types,
        #[OA\Property(items: new OA\Items(ref: ListItemLine::class))] public array $phases,
        #[OA\Property] public bool $may_plan,
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
