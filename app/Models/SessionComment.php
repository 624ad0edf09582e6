<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * What somebody who read a session said of it.
 *
 * @property string      $project_id
 * @property string      $session_id
 * @property string      $author_id
 * @property string      $text
 * @property ?string     $to_id          who is asked to read it; null: nobody in particular
 * @property ?string     $removed_by_id
 * @property ?Carbon     $removed_at
 * @property string      $removed_reason
 * @property Carbon      $created_at
 * @property TestSession $session
 * @property User        $author
 * @property ?User       $to
 * @property ?User       $remover
 */
final class SessionComment extends Record
{
    public $timestamps = false;

    /** @var array<string, mixed> */
    protected $attributes = ['to_id' => null, 'removed_by_id' => null, 'removed_at' => null, 'removed_reason' => ''];

    /** @var array<string, string> */
    protected $casts = ['removed_at' => 'datetime', 'created_at' => 'datetime'];

    /**
     * @return BelongsTo<TestSession, $this>
     */
    public function session(): BelongsTo
    {
        return $this->belongsTo(TestSession::class, 'session_id');
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
    public function to(): BelongsTo
    {
        return $this->belongsTo(User::class, 'to_id');
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function remover(): BelongsTo
    {
        return $this->belongsTo(User::class, 'removed_by_id');
    }
}
