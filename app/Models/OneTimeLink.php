<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;
use Illuminate\Support\Str;

/**
 * An address that works once: with it a person sets a password and is signed in. Only its hash is kept.
 *
 * @property LinkPurpose $purpose
 * @property ?string     $user_id    whose; null: of the first owner, who is nobody yet
 * @property string      $token_hash
 * @property Carbon      $created_at
 * @property Carbon      $expires_at
 * @property ?Carbon     $used_at
 * @property ?User       $user
 */
final class OneTimeLink extends Record
{
    /** For so many minutes it works. */
    public const MINUTES = 60;

    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = [
        'purpose' => LinkPurpose::class,
        'created_at' => 'datetime',
        'expires_at' => 'datetime',
        'used_at' => 'datetime',
    ];

    /**
     * Makes one; those before it for the same purpose and person do not work any more.
     *
     * @return string the page it leads to: what proves it stands behind the #, so that no log of a server ever has it
     */
    public static function make(LinkPurpose $purpose, ?User $user): string
    {
        $token = Str::random(48);
        self::query()
            ->where('purpose', $purpose)
            ->where('user_id', $user?->id)
            ->whereNull('used_at')
            ->update(['used_at' => Carbon::now()]);
        self::query()->create([
            'purpose' => $purpose,
            'user_id' => $user?->id,
            'token_hash' => hash('sha256', $token),
            'created_at' => Carbon::now(),
            'expires_at' => Carbon::now()->addMinutes(self::MINUTES),
        ]);

        return url("/begin#{$token}");
    }

    /**
     * @return ?self null when there is none, or it is over
     */
    public static function byToken(string $token): ?self
    {
        return self::query()
            ->where('token_hash', hash('sha256', $token))
            ->whereNull('used_at')
            ->where('expires_at', '>', Carbon::now())
            ->first();
    }

    /**
     * @return BelongsTo<User, $this>
     */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
