<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * Where a defect was met: an entry, an attempt, a step.
 *
 * @property string  $defect_id
 * @property string  $entry_id
 * @property string  $attempt_id
 * @property ?int    $round
 * @property ?int    $step
 * @property ?list<string> $evidence that belongs to the defect; null: all of the step
 * @property string  $linked_by_id
 * @property Carbon  $created_at
 * @property Defect  $defect
 * @property Entry   $entry
 * @property Attempt $attempt
 */
final class DefectLink extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = ['created_at' => 'datetime', 'evidence' => 'array'];

    /**
     * @return BelongsTo<Defect, $this>
     */
    public function defect(): BelongsTo
    {
        return $this->belongsTo(Defect::class);
    }

    /**
     * @return BelongsTo<Entry, $this>
     */
    public function entry(): BelongsTo
    {
        return $this->belongsTo(Entry::class);
    }

    /**
     * @return BelongsTo<Attempt, $this>
     */
    public function attempt(): BelongsTo
    {
        return $this->belongsTo(Attempt::class);
    }
}
