<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * A file that stands with a defect, or with what somebody said of it.
 *
 * @property string      $project_id
 * @property string      $defect_id
 * @property ?string     $comment_id     what it goes with, which may not be said yet; null: the defect itself
 * @property ?string     $sha256         null once it was taken out
 * @property string      $name
 * @property string      $added_by_id
 * @property Carbon      $created_at
 * @property ?string     $removed_by_id
 * @property ?Carbon     $removed_at
 * @property string      $removed_reason
 * @property Defect      $defect
 * @property ?StoredFile $file
 */
final class DefectFile extends Record
{
    public $timestamps = false;

    /** @var array<string, mixed> */
    protected $attributes = ['removed_by_id' => null, 'removed_at' => null, 'removed_reason' => ''];

    /** @var array<string, string> */
    protected $casts = ['created_at' => 'datetime', 'removed_at' => 'datetime'];

    /**
     * @return BelongsTo<Defect, $this>
     */
    public function defect(): BelongsTo
    {
        return $this->belongsTo(Defect::class);
    }

    /**
     * @return BelongsTo<StoredFile, $this>
     */
    public function file(): BelongsTo
    {
        return $this->belongsTo(StoredFile::class, 'sha256');
    }
}
