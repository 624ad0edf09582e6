<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * A named run of steps that many cases use.
 *
 * @property string         $project_id
 * @property string         $name
 * @property string         $description
 * @property ?string        $version_id
 * @property int            $revision
 * @property ?Carbon        $binned_at
 * @property Carbon         $updated_at
 * @property RoutineVersion $version
 */
final class Routine extends Record
{
    /** @var array<string, string> */
    protected $casts = ['binned_at' => 'datetime'];

    /**
     * @return BelongsTo<RoutineVersion, $this>
     */
    public function version(): BelongsTo
    {
        return $this->belongsTo(RoutineVersion::class, 'version_id');
    }
}
