<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\BelongsToMany;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;
use LucidStep\Core\Casebook\CaseState;

/**
 * A case; its text stands in its versions.
 *
 * @property string       $project_id
 * @property ?string      $folder_id
 * @property int          $number
 * @property string       $key
 * @property string       $title
 * @property CaseState    $state
 * @property string       $type
 * @property string       $priority
 * @property bool         $automated
 * @property ?int         $estimate_seconds
 * @property ?string      $owner_id
 * @property list<string> $labels
 * @property ?string      $version_id
 * @property float        $position
 * @property ?Carbon      $binned_at
 * @property Carbon       $updated_at
 * @property int          $revision
 * @property int          $priority_rank
 * @property array<string, string> $custom
 * @property bool         $is_template
 * @property ?string      $table_id
 * @property ?string      $approved_version_id
 * @property int          $steps_count
 * @property string       $words
 * @property ?Carbon      $last_walked_at
 * @property ?string      $binned_by_id
 * @property CaseVersion  $version
 * @property ?Folder      $folder
 * @property ?User        $owner
 * @property \Illuminate\Database\Eloquent\Collection<int, Requirement> $requirements
 * @property list<int> $walk_times
 */
final class TestCase extends Record
{
    protected $table = 'cases';

    /** @var array<string, string> */
    protected $casts = [
        'state' => CaseState::class,
        'labels' => 'array',
        'custom' => 'array',
        'walk_times' => 'array',
        'automated' => 'boolean',
        'is_template' => 'boolean',
        'binned_at' => 'datetime',
        'last_walked_at' => 'datetime',
        'position' => 'float',
    ];

    /**
     * @return BelongsTo<CaseVersion, $this>
     */
    public function version(): BelongsTo
    {
        return $this->belongsTo(CaseVersion::class, 'version_id');
    }

    /**
     * @return BelongsTo<Folder, $this>
     */
    public function folder(): BelongsTo
    {
        return $this->belongsTo(Folder::class);
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function owner(): BelongsTo
    {
        return $this->belongsTo(User::class, 'owner_id');
    }

    /**
     * @return BelongsToMany<Requirement, $this>
     */
    public function requirements(): BelongsToMany
    {
        return $this->belongsToMany(Requirement::class, 'case_requirements', 'case_id', 'requirement_id');
    }

    /**
     * @return HasMany<CaseVersion, $this>
     */
    public function versions(): HasMany
    {
        return $this->hasMany(CaseVersion::class, 'case_id');
    }
}
