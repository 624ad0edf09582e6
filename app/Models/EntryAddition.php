<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Support\Carbon;

/**
 * Entries being added to a cycle, many at once.
 *
 * @property string               $project_id
 * @property string               $cycle_id
 * @property string               $actor_id
 * @property JobState               $state
 * @property array<string, mixed> $picks
 * @property int                  $done
 * @property int                  $total
 * @property string               $problem
 * @property array<string, mixed> $facts
 * @property Carbon               $created_at
 */
final class EntryAddition extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = ['state' => JobState::class, 'picks' => 'array', 'facts' => 'array', 'created_at' => 'datetime'];
}
