<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Support\Carbon;

/**
 * One line of a cycle: a case on a configuration, with an assignee and an order.
 *
 * @property string         $project_id
 * @property string         $cycle_id
 * @property string         $case_id
 * @property string         $case_version_id
 * @property ?string        $configuration_id
 * @property int            $position
 * @property ?string        $assignee_id
 * @property ?Carbon        $not_before
 * @property ?Carbon        $not_after
 * @property string         $display_state
 * @property ?string        $previous_verdict
 * @property ?string        $open_attempt_id
 * @property ?string        $last_attempt_id
 * @property int            $attempts_count
 * @property int            $defects_count
 * @property int            $active_ms
 * @property ?Carbon        $retest_asked_at
 * @property ?string        $retest_by_id
 * @property ?string        $retest_reason
 * @property ?Carbon        $display_state_at
 * @property Cycle          $cycle
 * @property TestCase       $case
 * @property ?Configuration $configuration
 * @property ?User          $assignee
 * @property ?User          $retestBy
 * @property ?Attempt       $openAttempt
 * @property ?Attempt       $lastAttempt
 * @property ?list<string> $row_ids
 * @property int            $rounds
 * @property string         $handover_note
 * @property ?string        $handover_by_id
 * @property ?Carbon        $look_asked_at
 * @property ?string        $look_by_id
 * @property string         $look_note
 */
final class Entry extends Record
{
    /** @var array<string, string> */
    protected $casts = [
        'row_ids' => 'array',
        'not_before' => 'datetime',
        'not_after' => 'datetime',
        'retest_asked_at' => 'datetime',
        'display_state_at' => 'datetime',
        'look_asked_at' => 'datetime',
    ];

    /**
     * @return BelongsTo<Cycle, $this>
     */
    public function cycle(): BelongsTo
    {
        return $this->belongsTo(Cycle::class);
    }

    /**
     * @return BelongsTo<TestCase, $this>
     */
    public function case(): BelongsTo
    {
        return $this->belongsTo(TestCase::class, 'case_id');
    }

    /**
     * @return BelongsTo<CaseVersion, $this>
     */
    public function version(): BelongsTo
    {
        return $this->belongsTo(CaseVersion::class, 'case_version_id');
    }

    /**
     * @return BelongsTo<Configuration, $this>
     */
    public function configuration(): BelongsTo
    {
        return $this->belongsTo(Configuration::class);
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function assignee(): BelongsTo
    {
        return $this->belongsTo(User::class, 'assignee_id');
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function retestBy(): BelongsTo
    {
        return $this->belongsTo(User::class, 'retest_by_id');
    }

    /**
     * @return BelongsTo<Attempt, $this>
     */
    public function openAttempt(): BelongsTo
    {
        return $this->belongsTo(Attempt::class, 'open_attempt_id');
    }

    /**
     * @return BelongsTo<Attempt, $this>
     */
    public function lastAttempt(): BelongsTo
    {
        return $this->belongsTo(Attempt::class, 'last_attempt_id');
    }

    /**
     * @return HasMany<Attempt, $this>
     */
    public function attempts(): HasMany
    {
        $all = $this->hasMany(Attempt::class);
        $all->orderBy('number');

        return $all;
    }

    /**
     * @return HasMany<DefectLink, $this>
     */
    public function defectLinks(): HasMany
    {
        return $this->hasMany(DefectLink::class);
    }
}
