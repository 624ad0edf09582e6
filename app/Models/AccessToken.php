<?php

declare(strict_types=1);

namespace LucidStep\App\Models;

use Illuminate\Support\Carbon;
use Laravel\Sanctum\PersonalAccessToken;

/**
 * A token of a program: what it may is `read` or `write`, and it ends by itself after a while. When it was last used is written
 * once a minute: a write for every reading would cost more than most readings.
 *
 * @property ?Carbon $last_used_at
 * @property ?Carbon $expires_at
 */
final class AccessToken extends PersonalAccessToken
{
    protected $table = 'personal_access_tokens';

    protected static function booted(): void
    {
        static::creating(static function (self $token): void {
            $last = Carbon::now()->addDays((int) config('lucid.token_days'));
            $token->expires_at = $token->expires_at?->min($last) ?? $last;
        });
    }

    /**
     * @param  array<string, mixed>  $options
     */
    public function save(array $options = []): bool
    {
        $before = $this->getOriginal('last_used_at');
        if (
            $this->exists &&
            ['last_used_at'] === array_keys($this->getDirty()) &&
            null !== $before &&
            Carbon::parse($before)->isAfter(Carbon::now()->subMinute())
        ) {
            return true;
        }

        return parent::save($options);
    }
}
