<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

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
    public $timestamps = false;

    /** @var array<string, string> */
    protected $casts = [
        'purpose' => LinkPurpose::class,
        'created_at' => 'datetime',
        'expires_at' => 'datetime',
        'used_at' => 'datetime',
    ];

    /**
     * @return BelongsTo<User, $this>
     */
    public function user(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }
}
