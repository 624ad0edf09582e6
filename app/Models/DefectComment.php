<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * What somebody said of a defect.
 *
 * @property string  $project_id
 * @property string  $defect_id
 * @property string  $author_id
 * @property string  $text
 * @property Carbon  $created_at
 * @property ?Carbon $edited_at
 * @property ?string $removed_by_id
 * @property ?Carbon $removed_at
 * @property string  $removed_reason
 * @property Defect  $defect
 * @property User    $author
 * @property ?User   $removedBy
 */
final class DefectComment extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = ['created_at' => 'datetime', 'edited_at' => 'datetime', 'removed_at' => 'datetime'];

    /**
     * @return BelongsTo<Defect, $this>
     */
    public function defect(): BelongsTo
    {
        return $this->belongsTo(Defect::class);
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function author(): BelongsTo
    {
        return $this->belongsTo(User::class, 'author_id');
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function removedBy(): BelongsTo
    {
        return $this->belongsTo(User::class, 'removed_by_id');
    }
}
