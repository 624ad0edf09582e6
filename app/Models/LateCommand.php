<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * An act that arrived too late and waits for a lead.
 *
 * @property string               $project_id
 * @property string               $attempt_id
 * @property string               $actor_id
 * @property string               $kind
 * @property array<string, mixed> $payload
 * @property string               $why
 * @property ?Carbon              $device_time
 * @property Carbon               $received_at
 * @property LateState               $state
 * @property ?string              $judged_by_id
 * @property ?int                 $counter
 * @property ?string              $applied_to_id
 * @property User                 $actor
 * @property ?User                $judge
 */
final class LateCommand extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = ['state' => LateState::class, 'payload' => 'array', 'device_time' => 'datetime', 'received_at' => 'datetime'];

    /**
     * @return BelongsTo<User, $this>
     */
    public function actor(): BelongsTo
    {
        return $this->belongsTo(User::class, 'actor_id');
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function judge(): BelongsTo
    {
        return $this->belongsTo(User::class, 'judged_by_id');
    }
}
