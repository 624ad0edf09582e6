<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;
use LucidStep\Core\Planning\CycleState;

/**
 * A dated set of entries to be walked for a build.
 *
 * @property string  $project_id
 * @property int     $number
 * @property string  $key
 * @property string  $name
 * @property string  $description
 * @property ?string $build_id
 * @property ?string $environment_id
 * @property Carbon  $starts_on
 * @property Carbon  $ends_on
 * @property CycleState  $state
 * @property bool    $conditions_hold
 * @property ?Carbon $closed_at
 * @property ?string $milestone_id
 * @property string  $phase
 * @property string  $folder
 * @property string  $priority
 * @property ?string $default_assignee_id
 * @property ?string $cloned_from_id
 * @property int     $revision
 * @property int     $log_sequence how many events its own chain has
 * @property string  $log_head     the hash of the last of them
 * @property ?string $log_signature of the installation under that
 * @property Project $project
 * @property ?Build  $build
 * @property ?Environment $environment
 * @property ?Milestone $milestone
 */
final class Cycle extends Record
{
    /** @var array<string, string> */
    protected $casts = [
        'state' => CycleState::class,
        'starts_on' => 'date',
        'ends_on' => 'date',
        'conditions_hold' => 'boolean',
        'closed_at' => 'datetime',
    ];

    /**
     * @return BelongsTo<Project, $this>
     */
    public function project(): BelongsTo
    {
        return $this->belongsTo(Project::class);
    }

    /**
     * @return BelongsTo<Build, $this>
     */
    public function build(): BelongsTo
    {
        return $this->belongsTo(Build::class);
    }

    /**
     * @return BelongsTo<Environment, $this>
     */
    public function environment(): BelongsTo
    {
        return $this->belongsTo(Environment::class);
    }

    /**
     * @return BelongsTo<Milestone, $this>
     */
    public function milestone(): BelongsTo
    {
        return $this->belongsTo(Milestone::class);
    }

    /**
     * @return HasMany<Entry, $this>
     */
    public function entries(): HasMany
    {
        $all = $this->hasMany(Entry::class);
        $all->orderBy('position');

        return $all;
    }
}
