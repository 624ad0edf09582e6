<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;
use LucidStep\Core\Defects\DefectState;

/**
 * One change of a defect's state.
 *
 * @property string       $defect_id
 * @property string       $actor_id
 * @property ?DefectState $from_state
 * @property DefectState  $to_state
 * @property string       $note
 * @property ?array<string, array{?string, ?string}> $fields what else is otherwise, before and after; of words that they are
 * @property ?string      $attempt_id the walk whose result moved it
 * @property bool         $outside it happened in the tracker outside
 * @property Carbon       $created_at
 * @property User         $actor
 * @property ?Attempt     $attempt
 */
final class DefectChange extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = [
        'from_state' => DefectState::class,
        'to_state' => DefectState::class,
        'created_at' => 'datetime',
        'fields' => 'array',
        'outside' => 'boolean',
    ];

    /**
     * @return BelongsTo<User, $this>
     */
    public function actor(): BelongsTo
    {
        return $this->belongsTo(User::class, 'actor_id');
    }

    /**
     * @return BelongsTo<Attempt, $this>
     */
    public function attempt(): BelongsTo
    {
        return $this->belongsTo(Attempt::class);
    }
}
