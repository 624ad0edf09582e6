<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;
use Illuminate\Support\Str;

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

    /**
     * The page that it is accepted at. It can be told again, and nobody makes it up: it is signed with the key of the installation.
     * What proves it stands behind the #, so that no log of a server ever has it.
     */
    public function address(): string
    {
        return url('/join#' . $this->token());
    }

    public function token(): string
    {
        return "{$this->id}.{$this->proof()}";
    }

    /**
     * @return ?self null when no invitation has this token
     */
    public static function byToken(string $token): ?self
    {
        [$id, $proof] = [...explode('.', $token, 2), ''];
        $found = Str::isUuid($id) ? self::query()->find($id) : null;

        return null !== $found && hash_equals($found->proof(), $proof) ? $found : null;
    }

    private function proof(): string
    {
        return hash_hmac('sha256', "invitation {$this->id} {$this->email}", (string) config('app.key'));
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
