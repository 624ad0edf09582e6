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
 * @property ?string    $sha256      none for a link
 * @property ?string    $link
 * @property ?array<string, mixed> $markup      what was drawn on it; redactions are burnt in and not among it
 * @property ?string    $marked_sha256 the picture with what was drawn on it
 * @property ?string    $reference   the hash of the picture it was compared with
 * @property ?array<string, mixed> $compared
 * @property string     $name
 * @property string     $caption
 * @property string     $source
 * @property string     $added_by_id
 * @property ?Carbon    $device_time
 * @property Carbon     $created_at
 * @property ?Carbon    $removed_at
 * @property ?string    $copy_of_id  of which, where it came late for a sealed attempt
 * @property ?StoredFile $file
 * @property ?StoredFile $marked
 * @property Attempt    $attempt
 */
final class Evidence extends Record
{
    protected $table = 'evidence';

    public $timestamps = false;

    /** @var array<string, mixed> */
    protected $attributes = [
        'link' => null,
        'markup' => null,
        'marked_sha256' => null,
        'reference' => null,
        'compared' => null,
        'removed_at' => null,
        'copy_of_id' => null,
    ];

    /** @var array<string, string> */
    protected $casts = [
        'device_time' => 'datetime',
        'created_at' => 'datetime',
        'removed_at' => 'datetime',
        'markup' => 'array',
        'compared' => 'array',
    ];

    /**
     * @return BelongsTo<StoredFile, $this>
     */
    public function file(): BelongsTo
    {
        return $this->belongsTo(StoredFile::class, 'sha256', 'sha256');
    }

    /**
     * @return BelongsTo<StoredFile, $this>
     */
    public function marked(): BelongsTo
    {
        return $this->belongsTo(StoredFile::class, 'marked_sha256', 'sha256');
    }

    /**
     * @return BelongsTo<Attempt, $this>
     */
    public function attempt(): BelongsTo
    {
        return $this->belongsTo(Attempt::class);
    }
}
