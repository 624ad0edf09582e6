<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;
use LucidStep\Core\Sessions\LineKind;

/**
 * A line of a session's timeline.
 *
 * @property string       $project_id
 * @property string       $session_id
 * @property int          $number   in order of arrival
 * @property LineKind     $kind
 * @property int          $at_ms    on the session's clock
 * @property Carbon       $done_at  by the clock of the device, put right
 * @property ?int         $counter  of the device
 * @property string       $words
 * @property list<string> $former   what it said before
 * @property bool         $pinned
 * @property ?string      $sha256   of a capture
 * @property string       $name     of its file
 * @property ?string      $page
 * @property ?string      $tab
 * @property ?string      $reached
 * @property ?string      $opener
 * @property string       $control
 * @property ?string      $value
 * @property ?string      $removed_by_id
 * @property ?Carbon      $removed_at
 * @property string       $removed_reason
 * @property Carbon       $created_at
 * @property TestSession  $session
 * @property ?StoredFile  $file
 */
final class SessionLine extends Record
{
    public $timestamps = false;

    /** @var array<string, mixed> */
    protected $attributes = [
        'words' => '',
        'former' => '[]',
        'pinned' => false,
        'sha256' => null,
        'name' => '',
        'page' => null,
        'tab' => null,
        'reached' => null,
        'opener' => null,
        'control' => '',
        'value' => null,
        'removed_by_id' => null,
        'removed_at' => null,
        'removed_reason' => '',
    ];

    /** @var array<string, string> */
    protected $casts = [
        'kind' => LineKind::class,
        'former' => 'array',
        'pinned' => 'boolean',
        'done_at' => 'datetime',
        'removed_at' => 'datetime',
        'created_at' => 'datetime',
    ];

    /**
     * @return BelongsTo<TestSession, $this>
     */
    public function session(): BelongsTo
    {
        return $this->belongsTo(TestSession::class, 'session_id');
    }

    /**
     * @return BelongsTo<StoredFile, $this>
     */
    public function file(): BelongsTo
    {
        return $this->belongsTo(StoredFile::class, 'sha256');
    }
}
