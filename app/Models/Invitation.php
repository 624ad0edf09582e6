<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;
use LucidStep\Core\Access\InvitationState;
use LucidStep\Core\Access\Role;

/**
 * Somebody asked into a project, by mail. Whoever holds its address and is that person may join once.
 *
 * @property string  $project_id
 * @property string  $email          in lower case
 * @property string  $name           as whoever invited wrote it; may be empty
 * @property Role    $role
 * @property string  $inviter_id
 * @property ?string $accepted_by_id
 * @property Carbon  $created_at
 * @property ?Carbon $sent_at        when the mail went
 * @property ?string $failure        why the last mail did not go
 * @property Carbon  $expires_at
 * @property ?Carbon $accepted_at
 * @property ?Carbon $withdrawn_at
 * @property Project $project
 * @property User    $inviter
 */
final class Invitation extends Record
{
    /** For so many days it can be accepted. */
    public const DAYS = 7;

    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = [
        'role' => Role::class,
        'created_at' => 'datetime',
        'sent_at' => 'datetime',
        'expires_at' => 'datetime',
        'accepted_at' => 'datetime',
        'withdrawn_at' => 'datetime',
    ];

    /**
     * @return Builder<Invitation> those that were neither accepted nor withdrawn, also when they expired
     */
    public static function open(): Builder
    {
        return self::query()->whereNull('accepted_at')->whereNull('withdrawn_at');
    }

    public function state(): InvitationState
    {
        return InvitationState::of($this->accepted_at, $this->withdrawn_at, $this->expires_at, Carbon::now());
    }

    /**
     * @return BelongsTo<Project, $this>
     */
    public function project(): BelongsTo
    {
        return $this->belongsTo(Project::class);
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function inviter(): BelongsTo
    {
        return $this->belongsTo(User::class, 'inviter_id');
    }
}
