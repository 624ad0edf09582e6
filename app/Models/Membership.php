<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;
use LucidStep\Core\Access\Role;

/**
 * A person in a project, with a role.
 *
 * @property string  $project_id
 * @property string  $user_id
 * @property Role    $role
 * @property int     $minutes_per_day
 * @property list<string> $days_off
 * @property ?Carbon $today_seen_at
 * @property string  $scratch       notes that follow through the day
 * @property Project $project
 * @property User    $user
 */
final class Membership extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = ['role' => Role::class, 'days_off' => 'array', 'today_seen_at' => 'datetime'];

    /**
     * @return BelongsTo<Project, $this>
     */
    public function project(): BelongsTo
    {
        return $this->belongsTo(Project::class);
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
