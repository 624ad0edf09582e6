<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * A file attached to a step or an attempt.
 *
 * @property string     $project_id
 * @property string     $attempt_id
 * @property ?int       $round
 * @property ?int       $step
 * @property string     $sha256
 * @property string     $name
 * @property string     $caption
 * @property string     $source
 * @property string     $added_by_id
 * @property ?Carbon    $device_time
 * @property Carbon     $created_at
 * @property ?Carbon    $removed_at
 * @property StoredFile $file
 * @property Attempt    $attempt
 */
final class Evidence extends Record
{
    protected $table = 'evidence';

    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = ['device_time' => 'datetime', 'created_at' => 'datetime', 'removed_at' => 'datetime'];

    /**
     * @return BelongsTo<StoredFile, $this>
     */
    public function file(): BelongsTo
    {
        return $this->belongsTo(StoredFile::class, 'sha256', 'sha256');
    }

    /**
     * @return BelongsTo<Attempt, $this>
     */
    public function attempt(): BelongsTo
    {
        return $this->belongsTo(Attempt::class);
    }
}
