<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;

/**
 * A case; its text stands in its versions.
 *
 * @property string       $project_id
 * @property ?string      $folder_id
 * @property int          $number
 * @property string       $key
 * @property string       $title
 * @property string       $state
 * @property string       $type
 * @property string       $priority
 * @property bool         $automated
 * @property ?int         $estimate_seconds
 * @property ?string      $owner_id
 * @property list<string> $labels
 * @property ?string      $version_id
 * @property int          $position
 * @property ?Carbon      $binned_at
 * @property Carbon       $updated_at
 * @property CaseVersion  $version
 * @property ?Folder      $folder
 * @property ?User        $owner
 */
final class TestCase extends Record
{
    protected $table = 'cases';

    /** @var array<string, string> */
    protected $casts = ['labels' => 'array', 'automated' => 'boolean', 'binned_at' => 'datetime'];

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
     * @return HasMany<CaseVersion, $this>
     */
    public function versions(): HasMany
    {
        return $this->hasMany(CaseVersion::class, 'case_id');
    }
}
