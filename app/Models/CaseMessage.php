<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * A question or a suggestion about a case.
 *
 * @property string   $project_id
 * @property string   $case_id
 * @property ?int     $step
 * @property string   $kind
 * @property string   $body
 * @property ?array<string, mixed> $proposal
 * @property string   $author_id
 * @property MessageState $state
 * @property string   $answer
 * @property ?string  $answered_by_id
 * @property ?Carbon  $answered_at
 * @property Carbon   $created_at
 * @property ?string  $removed_by_id  who took its words out
 * @property ?string  $removed_reason
 * @property TestCase $case
 * @property User     $author
 * @property ?User    $answeredBy
 * @property ?User    $removedBy
 */
final class CaseMessage extends Record
{
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = ['proposal' => 'array', 'state' => MessageState::class, 'created_at' => 'datetime', 'answered_at' => 'datetime'];

    /**
     * @return BelongsTo<TestCase, $this>
     */
    public function case(): BelongsTo
    {
        return $this->belongsTo(TestCase::class, 'case_id');
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
    public function answeredBy(): BelongsTo
    {
        return $this->belongsTo(User::class, 'answered_by_id');
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function removedBy(): BelongsTo
    {
        return $this->belongsTo(User::class, 'removed_by_id');
    }
}
