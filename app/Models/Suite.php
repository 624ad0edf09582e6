<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Support\Carbon;

/**
 * A named collection of cases: hand-picked, by rule, or by requirement.
 *
 * @property string  $project_id
 * @property string  $name
 * @property string  $kind
 * @property array<string, string> $filter
 * @property ?string $requirement_id
 * @property ?Carbon $accepted_at
 * @property ?Carbon $binned_at
 */
final class Suite extends Record
{
    /** @var array<string, string> */
    protected $casts = ['filter' => 'array', 'accepted_at' => 'datetime', 'binned_at' => 'datetime'];
}
