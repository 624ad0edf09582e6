<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use LucidStep\Core\Execution\Readiness;

/**
 * Whether some entries are ready, held or done, and what they wait for.
 */
final readonly class EntryReadiness
{
    /**
     * @param  array<string, Readiness>  $of by entry
     * @param  array<string, list<PlanCondition>>  $needs by entry; those that wait for nothing are not in it
     */
    public function __construct(public array $of, public array $needs) {}
}
