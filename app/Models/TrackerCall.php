<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;
use LucidStep\Core\Defects\Tracker\CallState;
use LucidStep\Core\Defects\Tracker\OutboxCall;

/**
 * Something that is to be told to the tracker outside, by the id that it knows it by.
 *
 * @property int                  $number in the order in which they were made
 * @property string               $project_id
 * @property string               $defect_id
 * @property string               $by_id
 * @property 'file'|'comment'|'attach'|'move' $act
 * @property array<string, mixed> $payload
 * @property CallState            $state
 * @property int                  $tries
 * @property Carbon               $next_at
 * @property string               $problem what came of it last; empty: nothing
 * @property Carbon               $created_at
 * @property ?Carbon              $done_at
 * @property Defect               $defect
 */
final class TrackerCall extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = [
        'payload' => 'array',
        'state' => CallState::class,
        'next_at' => 'datetime',
        'created_at' => 'datetime',
        'done_at' => 'datetime',
    ];

    /**
     * @return BelongsTo<Defect, $this>
     */
    public function defect(): BelongsTo
    {
        return $this->belongsTo(Defect::class);
    }

    public function facts(): OutboxCall
    {
        return new OutboxCall($this->id, $this->defect_id, $this->number, $this->state, $this->tries, $this->next_at->getTimestamp());
    }
}
